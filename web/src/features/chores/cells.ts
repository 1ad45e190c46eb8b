import { isGroup, type Tree } from '@/shared/tree'

/** A field of a row. */
export interface Cell {
  address: string
  name: string
  type: string
}

/** Ways in which people write a day, each with the step that reads it. */
export const DAY_FORMS: Record<string, { shown: string; step: Tree }> = {
  iso: { shown: '2026-11-24', step: { 'read-day': 'iso' } },
  words: {
    shown: '24 November 2026',
    step: { 'read-day': { pattern: 'd MMMM uuuu', locale: 'en' } },
  },
  slashes: { shown: '24/11/2026', step: { 'read-day': { pattern: 'd/M/uuuu', locale: 'en' } } },
  dots: { shown: '24.11.2026', step: { 'read-day': { pattern: 'd.M.uuuu', locale: 'en' } } },
}

/** The cell that a part of the rules reads; empty if it reads none. */
export function cellOf(part: Tree | undefined): string {
  const at = isGroup(part) ? part.value : part
  return typeof at === 'string' && at.startsWith('/') ? at : ''
}

/** What holds for all rows; empty if that stands in each of them. */
export function fixedOf(part: Tree | undefined): string {
  if (isGroup(part)) return typeof part.always === 'string' ? part.always : ''
  return typeof part === 'string' && !part.startsWith('/') ? part : ''
}

/** In which way a day is written that a part reads; empty if it is another, or no text. */
export function dayFormOf(part: Tree | undefined): string {
  if (!isGroup(part)) return ''
  const steps = JSON.stringify(part.steps)
  return (
    Object.entries(DAY_FORMS).find(([, form]) => JSON.stringify([form.step]) === steps)?.[0] ?? ''
  )
}

/** The part that reads a day from a cell. */
export function dayIn(cell: Cell | undefined, form: string): Tree | undefined {
  if (!cell) return undefined
  const written = DAY_FORMS[form] ?? DAY_FORMS.iso!
  return cell.type === 'text' ? { value: cell.address, steps: [written.step] } : cell.address
}

/** The cell that people most likely keep something in, by what it is called. */
export function likelyCell(cells: Cell[], words: RegExp): Cell | undefined {
  return cells.find((cell) => words.test(cell.name)) ?? undefined
}
