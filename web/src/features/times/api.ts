import { get, post, type Schemas } from '@/shared/http/client'

export type TimeView = Schemas['TimeView']
export type TimesView = Schemas['TimesView']
export type TimesPreview = Schemas['TimesPreview']

const of = (id: string) => `/api/bridges/${encodeURIComponent(id)}/times`

export const readTimes = (id: string) => get<TimesView>(of(id))
export const runTime = (id: string, at: string) => post<Schemas['RunView']>(`${of(id)}/run`, { at })
/** What a draft says of its times; `from` is what stands under that key, as JSON. */
export const previewTimes = (from: string) => post<TimesPreview>('/api/desk/times', { from })
