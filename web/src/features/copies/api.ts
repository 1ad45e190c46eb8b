import { del, get, post, put, type Schemas } from '@/shared/http/client'

export type Copies = Schemas['CopiesView']
export type Copy = Schemas['CopyView']
export type Results = Schemas['FollowResults']
export type Followed = Schemas['Followed']
export type FollowOne = { copy: string; seen: string; take: string[] }

const at = (id: string) => `/api/bridges/${encodeURIComponent(id)}`

export const readCopies = (id: string) => get<Copies>(`${at(id)}/copies`)

/** Takes down that a bridge is a copy of another as that is at work now. */
export const isCopy = (id: string, original: string) =>
  put<void>(`${at(id)}/original`, { original })

export const standAlone = (id: string) => del(`${at(id)}/original`)

export const readResults = (id: string, copy: string) =>
  get<Results>(`${at(id)}/copies/${encodeURIComponent(copy)}/results`)

export const follow = (id: string, copies: FollowOne[]) =>
  post<Followed[]>(`${at(id)}/copies/follow`, { copies })
