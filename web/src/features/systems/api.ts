import { get, post, type Schemas } from '@/shared/http/client'

export type SystemView = Schemas['SystemView']
export type CollectionView = Schemas['CollectionView']
export type PollView = Schemas['PollView']

const of = (id: string) => `/api/systems/${encodeURIComponent(id)}`

export const readSystems = () => get<SystemView[]>('/api/systems')
export const readPolls = () => get<PollView[]>('/api/polls')
export const lookNow = (id: string) => post<SystemView>(`${of(id)}/look`)
export const askNow = (system: string, collection: string) =>
  post<undefined>(`${of(system)}/collections/${encodeURIComponent(collection)}/ask`)
