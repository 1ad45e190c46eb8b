import { del, get, post, type Schemas } from '@/shared/http/client'

export type Resend = Schemas['ResendView']
export type Waiting = Pick<Schemas['IncidentLine'], 'id' | 'headline' | 'sendable'>

export const readResends = () => get<Resend[]>('/api/resends')
/** @param incident what a person saw waiting */
export const sendAgain = ({ id, sendable }: Waiting) =>
  post<Resend>('/api/resends', { incident: id, traces: sendable })
export const stopSending = (id: number) => del(`/api/resends/${id}`)

/** What waits of an incident, or at a held bridge. */
export type OfWhat = { incident: number } | { bridge: string }
export type ForeseenList = Schemas['ForeseenList']
/** What each of it would become now; nothing comes of looking. */
export const readForeseen = (of: OfWhat) =>
  get<ForeseenList>(
    'incident' in of
      ? `/api/foreseen?incident=${of.incident}`
      : `/api/foreseen?bridge=${encodeURIComponent(of.bridge)}`,
  )
