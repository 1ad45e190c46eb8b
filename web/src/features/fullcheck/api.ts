import { get, post, type Schemas } from '@/shared/http/client'

export type FullCheck = Schemas['FullCheckView']
export type Found = Schemas['FoundDifference']
export type Kind = Found['kind']

export const readChecks = (bridge: string) =>
  get<Schemas['FullCheckList']>(`/api/full-checks?bridge=${encodeURIComponent(bridge)}`)
export const begin = (bridge: string) => post<FullCheck>('/api/full-checks', { bridge })
export const readFound = (id: number, kind: Kind | null, after: number) =>
  get<Found[]>(
    `/api/full-checks/${id}/differences?after=${after}${kind === null ? '' : `&kind=${kind}`}`,
  )
export const stop = (id: number) => post<FullCheck>(`/api/full-checks/${id}/stop`, {})
/** Makes two tasks that are there a pair. */
export const meet = (bridge: string, left: string, right: string) =>
  post<Schemas['Looking']>(`/api/kept-pairs/${encodeURIComponent(bridge)}/meet`, { left, right })
/** Takes tasks that may be the same for two. */
export const part = (id: number, numbers: number[]) =>
  post<FullCheck>(`/api/full-checks/${id}/part`, { numbers })
/** Leaves tasks as they are, so that nothing is made of them on the other side. */
export const leaveAlone = (id: number, numbers: number[]) =>
  post<FullCheck>(`/api/full-checks/${id}/leave`, { numbers })
/** Puts right all of some kinds, or single ones. */
export const repair = (
  id: number,
  wish: { kinds: Kind[] } | { numbers: number[] },
  leads: 'LEFT' | 'RIGHT' | null,
) =>
  post<FullCheck>(`/api/full-checks/${id}/repair`, { kinds: null, numbers: null, leads, ...wish })
