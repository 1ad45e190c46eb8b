import { del, get, post, type Schemas } from '@/shared/http/client'

export type ToComeView = Schemas['ToComeView']
export type Entry = Schemas['TimeEntry']

export const readToCome = (from: string, days: number) =>
  get<ToComeView>(`/api/to-come?days=${days}${from ? `&from=${from}` : ''}`)
export const readAddress = () => get<Schemas['FeedView']>('/api/to-come/address')
export const makeAddress = () => post<Schemas['FeedView']>('/api/to-come/address', {})
export const removeAddress = () => del('/api/to-come/address')
