import { get, type Schemas } from '@/shared/http/client'

export type BridgeSummary = Schemas['BridgeSummary']
export type BridgeView = Schemas['BridgeView']
export type FieldView = Schemas['FieldView']

export const readBridges = () => get<BridgeSummary[]>('/api/bridges')
export type Retired = Schemas['RetiredView']
export const readRetired = () => get<Retired[]>('/api/bridges/retired')
export const readBridge = (id: string) => get<BridgeView>(`/api/bridges/${encodeURIComponent(id)}`)
export type BothWays = NonNullable<BridgeView['bothWays']>
