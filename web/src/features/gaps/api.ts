import { get, post, type Schemas } from '@/shared/http/client'

export type Gap = Schemas['GapView']

/** The spans of time that are missing, of which something is still to be said. */
export const readGaps = () => get<Gap[]>('/api/gaps')

export const gapSeen = (id: number) => post<void>(`/api/gaps/${id}/seen`)
