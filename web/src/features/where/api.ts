import { get, post, type Schemas } from '@/shared/http/client'

export type FoundRecord = Schemas['FoundRecord']
export type Where = Schemas['WhereView']
export type RecordNow = Schemas['RecordView']
export type Hearing = Schemas['HearingBridge']

/** A record by its place. */
export type Place = Pick<FoundRecord, 'system' | 'collection' | 'record'>

const WHERE = '/api/where'
export const findRecords = (text: string, ask: boolean) =>
  get<Schemas['FoundView']>(`${WHERE}?${String(new URLSearchParams({ text, ask: String(ask) }))}`)
export const readWhere = ({ system, collection, record }: Place) =>
  get<Where>(`${WHERE}/record?${String(new URLSearchParams({ system, collection, record }))}`)
export const fetchRecord = (place: Place) => post<Schemas['FetchedView']>(`${WHERE}/fetch`, place)
