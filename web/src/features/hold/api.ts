import { del, get, put, type Schemas } from '@/shared/http/client'

export type Held = Pick<Schemas['BridgeSummary'], 'id' | 'name' | 'heldSince' | 'heldBecause'>

const bridge = (id: string) => `/api/bridges/${encodeURIComponent(id)}`
const of = (id: string) => `${bridge(id)}/hold`

export const hold = (id: string, because: string) => put<Schemas['BridgeView']>(of(id), { because })
export const release = (id: string) => del(of(id))
export const readHeld = async (id: string): Promise<Held> =>
  (await get<Schemas['BridgeView']>(bridge(id))).bridge
