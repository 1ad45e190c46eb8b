import { del, get, post, type Schemas } from '@/shared/http/client'

export type Resend = Schemas['ResendView']
export type Waiting = Pick<Schemas['IncidentLine'], 'id' | 'headline' | 'sendable'>

export const readResends = () => get<Resend[]>('/api/resends')
/** @param incident what a person saw waiting */
export const sendAgain = ({ id, sendable }: Waiting) =>
  post<Resend>('/api/resends', { incident: id, traces: sendable })
export const stopSending = (id: number) => del(`/api/resends/${id}`)
