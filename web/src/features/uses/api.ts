import { get, post, type Schemas } from '@/shared/http/client'

export type Things = Schemas['ThingsView']
export type Uses = Schemas['UsesView']
export type UseLine = Schemas['UseLine']
export type Leaving = Schemas['LeavingView']
export type Renamed = Schemas['Renamed']
export type RenameWish = Schemas['RenameWish']

/** What is asked about, as the address says it. */
export interface Wanted {
  kind: 'system' | 'table' | 'calendar' | 'bridge' | 'person' | 'secret'
  system: string
  collection: string
  field: string
  /** The id of a table, a calendar or a bridge, the name of a secret, or what a person is called. */
  id: string
}

const USES = '/api/uses'
export const readThings = () => get<Things>(`${USES}/things`)

/** The query under which the answer for something stands. */
export function queryOf(wanted: Wanted): string {
  const { system, collection, field } = wanted
  if (wanted.kind !== 'system') {
    return String(new URLSearchParams({ kind: wanted.kind.toUpperCase(), id: wanted.id }))
  }
  const kind = field ? 'FIELD' : collection ? 'COLLECTION' : 'SYSTEM'
  return String(new URLSearchParams({ kind, system, collection, id: field }))
}

export const readUses = (wanted: Wanted) => get<Uses>(`${USES}?${queryOf(wanted)}`)
export const readLeaving = (system: string) =>
  get<Leaving>(`${USES}/leaving?system=${encodeURIComponent(system)}`)
export const seeRenaming = (wish: RenameWish) => post<Renamed[]>(`${USES}/renaming`, wish)
export const draftRenaming = (wish: RenameWish) => post<Renamed[]>(`${USES}/renaming/drafts`, wish)
