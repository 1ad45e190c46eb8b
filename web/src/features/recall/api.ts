import { del, get, post, put, type Schemas } from '@/shared/http/client'

export type Recall = Schemas['RecallView']
export type RecallRecord = Schemas['ItemView']
export type RecallCounts = Schemas['RecallCounts']
export type RecallWish = Partial<Schemas['RecallWish']>

export const readRecalls = () => get<Recall[]>('/api/recalls')
/** What is under way, or broke off of late. */
export const readCurrentRecalls = () => get<Recall[]>('/api/recalls/current')
/** What was taken back of an incident, or is. */
export const readRecallsOf = (incident: number) =>
  get<Recall[]>(`/api/recalls?incident=${incident}`)
export const readRecall = (id: string) => get<Recall>(`/api/recalls/${id}`)
export const readRecords = (id: string, before?: number) =>
  get<Schemas['Items']>(
    before === undefined
      ? `/api/recalls/${id}/records`
      : `/api/recalls/${id}/records?before=${before}`,
  )
/** Lists what there is to take back; nothing is done about it. */
export const listMade = (wish: RecallWish) => post<Recall>('/api/recalls', wish)
export const choose = (id: number, delivery: number, chosen: boolean) =>
  put<Recall>(`/api/recalls/${id}/records/${delivery}`, { chosen })
/** @param records how many a person saw that are to go */
export const begin = (id: number, records: number, evenIfChanged: boolean) =>
  post<Recall>(`/api/recalls/${id}/start`, { records, evenIfChanged })
export const stop = (id: number) => post<Recall>(`/api/recalls/${id}/stop`)
export const goOn = (id: number) => post<Recall>(`/api/recalls/${id}/go-on`)
export const makeAgain = (id: number) => post<Recall>(`/api/recalls/${id}/make-again`)
export const forget = (id: number) => del(`/api/recalls/${id}`)
