import { del, get, post, put, type Schemas } from '@/shared/http/client'

export type Held = Pick<Schemas['BridgeSummary'], 'id' | 'name' | 'heldSince' | 'heldBecause'>

const bridge = (id: string) => `/api/bridges/${encodeURIComponent(id)}`
const of = (id: string) => `${bridge(id)}/hold`

export const hold = (id: string, because: string) => put<Schemas['BridgeView']>(of(id), { because })
export const release = (id: string) => del(of(id))
export const readHeld = async (id: string): Promise<Held> =>
  (await get<Schemas['BridgeView']>(bridge(id))).bridge

export type Waiting = Schemas['WaitingView']
export const readWaiting = (id: string) => get<Waiting>(`${bridge(id)}/retirement`)
/** @param events how many events the person saw waiting */
export const retire = (id: string, because: string, events: number) =>
  post<undefined>(`${bridge(id)}/retirement`, { because, events })
