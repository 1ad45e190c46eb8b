import { get, post, type Schemas } from '@/shared/http/client'

export type Possible = Schemas['DuplicateLine']
export type Possibles = Schemas['DuplicatePage']
export type Sides = Schemas['SidesView']
export type Pair = Schemas['PairView']

export const readPossibles = (before?: number) =>
  get<Possibles>(`/api/duplicates${before === undefined ? '' : `?before=${before}`}`)
export const readSides = (id: number) => get<Sides>(`/api/duplicates/${id}/sides`)
export const answer = (id: number, same: boolean) =>
  post<Possibles>(`/api/duplicates/${id}/answer`, { same })
export const findPairs = (id: string) => get<Pair[]>(`/api/pairs?id=${encodeURIComponent(id)}`)
