import type { Rules } from '@/features/resend'
import { get, post, type Schemas } from '@/shared/http/client'

export type TraceList = Schemas['TracePage']
export type TraceSummary = Schemas['TraceSummary']
export type TraceView = Schemas['TraceView']
export type StoryLine = Schemas['Line']
export type FieldWay = Schemas['Field']
export type BridgeSummary = Schemas['BridgeSummary']

/** What to look for; an empty part is not asked. */
export interface Wanted {
  bridge: string
  /** The collection that they came from, of a bridge that hears several. */
  place: string
  verdict: string
  text: string
  since: string
  until: string
  before: number | null
}

export function readTraces(wanted: Wanted): Promise<TraceList> {
  const query = new URLSearchParams()
  for (const [name, value] of Object.entries(wanted)) {
    if (value !== '' && value !== null) query.set(name, String(value))
  }
  return get<TraceList>(`/api/traces?${query}`)
}

export const readTrace = (id: string) => get<TraceView>(`/api/traces/${encodeURIComponent(id)}`)

export const sendAgain = (id: string, rules: Rules) =>
  post<Schemas['Resent']>(`/api/traces/${encodeURIComponent(id)}/resend?rules=${rules}`)

/** Takes the task of a try back; refused when someone worked on it, unless told all the same. */
export const takeBack = (id: string, evenIfTouched: boolean) =>
  post<undefined>(`/api/traces/${encodeURIComponent(id)}/take-back?evenIfTouched=${evenIfTouched}`)

/** Makes a task anew that others removed; gives the trace that makes it. */
export const makeAnew = (id: string) =>
  post<Schemas['MadeAnew']>(`/api/traces/${encodeURIComponent(id)}/make-anew`)

/** Leaves a task removed, for later events too. */
export const leaveRemoved = (id: string) =>
  post<undefined>(`/api/traces/${encodeURIComponent(id)}/leave-removed`)

/** Whether a trace failed since its task is not there, which a person can settle. */
export const isGone = (view: TraceView) =>
  view.trace.verdict === 'FAILED' &&
  view.trace.target !== '' &&
  !view.trace.trial &&
  view.newer === '' &&
  view.failures.some((one) => one.kind === 'not found' && one.system !== '')

export const readBridges = () => get<BridgeSummary[]>('/api/bridges')

/** Keys with what people call them: `Paths crew (bu-11)`; other texts as they are. */
export function named(way: FieldWay, text: string): string {
  if (Object.keys(way.names).length === 0) return text
  return text
    .split(', ')
    .map((key) => {
      const name = way.names[key] ?? key
      return name.toLowerCase() === key.toLowerCase() ? name : `${name} (${key})`
    })
    .join(', ')
}
