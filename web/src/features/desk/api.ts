import { del, get, post, put, type Schemas } from '@/shared/http/client'

export type DraftView = Schemas['DraftView']
export type DraftSummary = Schemas['DraftSummary']
export type TrialView = Schemas['TrialView']
export type TestView = Schemas['TestView']
export type SampleView = Schemas['SampleView']
export type ArrivingGroup = Schemas['ArrivingGroup']
export type LeavingField = Schemas['LeavingField']
export type VersionView = Schemas['VersionView']
export type SheetView = Schemas['SheetView']
export type PlacesView = Schemas['PlacesView']
export type PlaceView = Schemas['PlaceView']
export type LanguageView = Schemas['LanguageView']
export type StepKindView = Schemas['StepKindView']
export type OptionView = Schemas['OptionView']
export type NewBridgeWish = Schemas['NewBridge']

const of = (id: string) => `/api/desk/drafts/${encodeURIComponent(id)}`

export const readDrafts = () => get<DraftSummary[]>('/api/desk/drafts')
export const readDraft = (id: string) => get<DraftView>(of(id))
export const addDraft = (wish: NewBridgeWish) => post<DraftView>('/api/desk/drafts', wish)
export const keepDraft = (id: string, document: string, revision: number) =>
  put<DraftView>(of(id), { document, revision })
export const dropDraft = (id: string) => del(of(id))
export const goLive = (id: string, document: string, revision: number) =>
  post<DraftView>(`${of(id)}/live`, { document, revision })
export const tryDraft = (document: string, sample: number, fresh = false) =>
  post<TrialView>(`/api/desk/trial?sample=${sample}&fresh=${fresh}`, { document, revision: 0 })
export const computeProof = (id: string, document: string) =>
  post<SheetView>(`${of(id)}/proof`, { document, revision: 0 })
export const asYaml = (document: string) =>
  post<Schemas['DocumentView']>('/api/desk/document', { document, revision: 0 })
export const fromYaml = (yaml: string) => post<Schemas['Imported']>('/api/desk/imported', { yaml })
export const readVersions = (id: string) =>
  get<VersionView[]>(`/api/desk/versions/${encodeURIComponent(id)}`)
export const readPlaces = () => get<PlacesView>('/api/desk/places')
export const readLanguage = () => get<LanguageView>('/api/desk/language')
