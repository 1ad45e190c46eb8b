import { get, type Schemas } from '@/shared/http/client'

export type Watch = Schemas['Watch']
export type BridgeLine = Schemas['BridgeLine']
export type Bar = Schemas['Bar']
export type UnreadableLine = Schemas['UnreadableLine']
export type BrokenLine = Schemas['BrokenLine']
export type EndingLine = Schemas['EndingLine']
export type OfferedPlaces = Schemas['OfferedPlaces']
export type CheckLine = Schemas['CheckLine']
export type Past = NonNullable<Schemas['Past']>
export type NoRoom = NonNullable<Schemas['NoRoom']>

export const readWatch = () => get<Watch>('/api/watch')

/** The newest traces of the last week. */
export const readLatest = () => get<Schemas['TracePage']>('/api/traces')
