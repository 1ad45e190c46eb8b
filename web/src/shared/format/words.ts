import type { Schemas } from '@/shared/http/client'

export type Verdict = Schemas['TraceSummary']['verdict']

export const VERDICT_WORDS: Record<Verdict, string> = {
  CREATE: 'created',
  UPDATE: 'updated',
  UNCHANGED: 'unchanged',
  PASSED_BY: 'passed by',
  FAILED: 'failed',
  WAITING: 'under way',
}

/** `1 trace`, `3 traces` */
export function counted(count: number, noun: string): string {
  return `${count.toLocaleString('en')} ${noun}${count === 1 ? '' : 's'}`
}

/** Words as a sentence of its own begins. */
export function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}

/** A noun with its article, by its first letter: `a task`, `an exhibition`. */
export function withArticle(noun: string): string {
  return `${/^[aeiou]/i.test(noun) ? 'an' : 'a'} ${noun}`
}

/** `2nd`, `3rd`, `11th` */
export function ordinal(n: number): string {
  const tens = n % 100
  const suffix = tens > 10 && tens < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th')
  return `${n}${suffix}`
}

/** JSON text with line breaks, or the text as it is where it is no JSON. */
export function pretty(text: string): string {
  try {
    return JSON.stringify(JSON.parse(text), null, 2)
  } catch {
    return text
  }
}
