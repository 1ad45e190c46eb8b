import { get, type Schemas } from '@/shared/http/client'

export type Circle = Schemas['CircleView']
export const readLoops = (id: string) => get<Schemas['LoopsView']>(`/api/bridges/${id}/loops`)
