import { get, post, type Schemas } from '@/shared/http/client'

export type ChoreView = Schemas['ChoreView']
export type ChoresView = Schemas['ChoresView']
export type RowsView = Schemas['RowsView']

const of = (id: string) => `/api/bridges/${encodeURIComponent(id)}/chores`

export const readChores = (id: string) => get<ChoresView>(of(id))
export const runChore = (id: string, record: string, at: string) =>
  post<Schemas['RunView']>(`${of(id)}/run`, { record, at })
/** When the rows that are known would come round by a draft. */
export const previewRows = (id: string, document: string) =>
  post<RowsView>(`/api/desk/drafts/${encodeURIComponent(id)}/rows`, { document })
