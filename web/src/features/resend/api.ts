import { del, get, post, type Schemas } from '@/shared/http/client'

export type Resend = Schemas['ResendView']
export type Waiting = Schemas['NeedsYou']

export const readResends = () => get<Resend[]>('/api/resends')
/** @param wish what a person saw waiting */
export const sendAgain = ({ bridge, failure, traces }: Waiting) =>
  post<Resend>('/api/resends', { bridge, failure, traces })
export const stopSending = (id: number) => del(`/api/resends/${id}`)
