import type { Rehearsal, Verdict } from './api'

/** A verdict as what becomes of an event, then or now. */
export const BECOMES: Record<Verdict, string> = {
  CREATE: 'new task',
  UPDATE: 'task changed',
  UNCHANGED: 'nothing to change',
  PASSED_BY: 'passed by',
  FAILED: 'failed',
}
export const VERDICTS = Object.keys(BECOMES) as Verdict[]
/** It was not heard, is under way, or is not kept any more. */
export const UNHEARD = 'nothing known'

export const STATES: Record<Rehearsal['state'], string> = {
  RUNNING: 'under way',
  ENDED: 'ended',
  STOPPED: 'stopped',
  FAILED: 'broken off',
}

/** What was rehearsed, in words. */
export const what = (one: Pick<Rehearsal, 'version' | 'sameAsDraft'>) =>
  one.version !== null
    ? `version ${one.version}`
    : one.sameAsDraft
      ? 'the draft as it is'
      : 'the draft as it was'

/** A field by what people call it, with the name of its task where there are several. */
export function fieldName(field: string, names: Record<string, string>): string {
  const at = field.indexOf('/')
  if (field in names || at < 0) return names[field] ?? field
  const key = field.slice(at + 1)
  return `${names[key] ?? key} (${field.slice(0, at)})`
}
