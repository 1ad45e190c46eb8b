import { get, type Schemas } from '@/shared/http/client'

export type SetsView = Schemas['SetsView']
export type MovedView = Schemas['MovedView']
export type MovedTask = Schemas['MovedTask']

const of = (id: string) => `/api/bridges/${encodeURIComponent(id)}/sets`

export const readSets = (id: string) => get<SetsView>(of(id))
/** What would move with another day; with none, what would become of it if that is taken away. */
export const readMoved = (id: string, record: string, day: string) =>
  get<MovedView>(
    `${of(id)}/moved?${new URLSearchParams(day ? { record, day } : { record }).toString()}`,
  )
