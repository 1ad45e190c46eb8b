import { get, post, type Schemas } from '@/shared/http/client'

export type Rehearsals = Schemas['RehearsalsView']
export type Rehearsal = Schemas['RehearsalView']
export type Wish = Schemas['RehearsalWish']
export type Difference = Schemas['DifferenceView']
export type Verdict = Rehearsal['tally']['verdicts'][number]['now']

/** Which differences are shown: all, those of a change of verdict, or those of a field. */
export interface Filter {
  then?: Verdict | 'UNHEARD'
  now?: Verdict
  field?: string
}

const PATH = '/api/rehearsals'
export const readRehearsals = (bridge: string) =>
  get<Rehearsals>(`${PATH}?${String(new URLSearchParams({ bridge }))}`)
export const begin = (wish: Wish) => post<Rehearsal>(PATH, wish)
export const stop = (id: number) => post<Rehearsal>(`${PATH}/${id}/stop`)
export const readDifferences = (id: number, { then, now, field }: Filter, after: number) => {
  const asked = new URLSearchParams({ after: String(after) })
  if (then === 'UNHEARD') asked.set('unheard', 'true')
  else if (then) asked.set('then', then)
  if (now) asked.set('now', now)
  if (field) asked.set('field', field)
  return get<Schemas['DifferencePage']>(`${PATH}/${id}/differences?${String(asked)}`)
}
