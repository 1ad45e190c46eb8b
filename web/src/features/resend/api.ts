import { del, get, post, type Schemas } from '@/shared/http/client'

export type Resend = Schemas['ResendView']
export type Waiting = Pick<Schemas['IncidentLine'], 'id' | 'headline' | 'sendable'>

export const readResends = () => get<Resend[]>('/api/resends')
export type Rules = Schemas['ResendView']['rules']

/** What is sent again: what waits of an incident, or traces that a person chose. */
export type ToSend = { incident: number } | { chosen: string[] }

/** @param traces how many a person saw that can be sent */
export const sendAgain = (what: ToSend, traces: number, rules: Rules) =>
  post<Resend>('/api/resends', { ...what, traces, rules })
export const stopSending = (id: number) => del(`/api/resends/${id}`)

/** What waits of an incident or at a held bridge, or what a person chose. */
export type OfWhat = ToSend | { bridge: string }
export type ForeseenList = Schemas['ForeseenList']
/** What each of it would become now; nothing comes of looking. */
export function readForeseen(of: OfWhat, rules: Rules = 'LIVE') {
  if ('chosen' in of) return post<ForeseenList>('/api/foreseen', { ...of, rules })
  return get<ForeseenList>(
    'incident' in of
      ? `/api/foreseen?incident=${of.incident}&rules=${rules}`
      : `/api/foreseen?bridge=${encodeURIComponent(of.bridge)}`,
  )
}
