import { del, get, post, putText, type Schemas } from '@/shared/http/client'

export type SystemView = Schemas['SystemView']
export type CollectionView = Schemas['CollectionView']
export type PollView = Schemas['PollView']

const of = (id: string) => `/api/systems/${encodeURIComponent(id)}`

export const readSystems = () => get<SystemView[]>('/api/systems')
export const readPolls = () => get<PollView[]>('/api/polls')
export type Filling = Schemas['FillingView']
export const readFilling = (id: string) => get<Filling>(`${of(id)}/quota`)
export const lookNow = (id: string) => post<SystemView>(`${of(id)}/look`)
export const askNow = (system: string, collection: string) =>
  post<undefined>(`${of(system)}/collections/${encodeURIComponent(collection)}/ask`)

export type FaultView = Schemas['FaultView']
export const readFaults = (id: string) => get<FaultView[]>(`${of(id)}/faults`)
export type FaultWish = Schemas['FaultWish']
export const switchOn = (id: string, wish: FaultWish) => post<FaultView[]>(`${of(id)}/faults`, wish)
export const switchOff = (id: string) => del(`${of(id)}/faults`)

export const dropFile = async (id: string, file: File) =>
  putText<undefined>(
    `${of(id)}/files/${encodeURIComponent(file.name)}`,
    await file.text(),
    'application/octet-stream',
  )

/** The bridges that were set up to practise a runaway with. */
export const readRunaway = () => get<Schemas['RunawayBridge'][]>('/api/practice/runaway')
export const practiseRunaway = () => post('/api/practice/runaway')
