import { del, get, post, put, putText, type Schemas } from '@/shared/http/client'

export type DraftView = Schemas['DraftView']
export type DraftSummary = Schemas['DraftSummary']
export type TrialView = Schemas['TrialView']
export type TestView = Schemas['TestView']
export type SampleView = Schemas['SampleView']
export type ArrivingGroup = Schemas['ArrivingGroup']
export type LeavingField = Schemas['LeavingField']
export type AfterView = Schemas['AfterView']
export type GoingView = Schemas['GoingView']
export type LoadView = Schemas['LoadView']
export type RuleDifference = Schemas['RuleDifference']
export type LookupFound = Schemas['LookupFound']
export type LookupPlace = Schemas['LookupPlace']
export type NamedValue = Schemas['NamedValue']
export type StatusGrid = Schemas['StatusGrid']
export type PlayedStep = Schemas['PlayedStep']
export type UnknownKey = Schemas['UnknownKey']
export type Suggestion = Schemas['SuggestionView']
export type Starter = Schemas['StarterView']
export type TableView = Schemas['TableView']
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
export const lookAtGoing = (id: string, document: string) =>
  post<GoingView>(`${of(id)}/going`, { document, revision: 0 })
export const goLive = (
  id: string,
  document: string,
  revision: number,
  accept: boolean,
  acceptLoops: boolean,
) =>
  post<undefined>(
    `${of(id)}/live?acceptExamples=${accept}${acceptLoops ? '&acceptLoops=true' : ''}`,
    {
      document,
      revision,
    },
  )
export const tryDraft = (id: string, document: string, sample: string, fresh = false) =>
  post<TrialView>(`${of(id)}/trial?sample=${encodeURIComponent(sample)}&fresh=${fresh}`, {
    document,
    revision: 0,
  })
export const addSamples = (id: string, document: string, text: string) =>
  post<Schemas['AddedSamples']>(`${of(id)}/samples`, { document, text })
export const removeSample = (id: string, sample: string) =>
  del(`${of(id)}/samples/${encodeURIComponent(sample)}`)
export const pinSample = (id: string, document: string, sample: string, name: string) =>
  post<undefined>(`${of(id)}/examples`, { document, sample, name })
export const unpin = (id: string, example: string) =>
  del(`${of(id)}/examples/${encodeURIComponent(example)}`)
export const playStatuses = (
  id: string,
  document: string,
  field: string,
  start: { left: string; right: string },
  changes: Schemas['PlayedChange'][],
) => post<PlayedStep[]>(`${of(id)}/played`, { document, field, ...start, changes })
export const readSuggestions = (id: string, document: string) =>
  post<Suggestion[]>(`${of(id)}/suggestions`, { document, revision: 0 })
export const sendTry = (id: string, document: string, sample: string) =>
  post<Schemas['Tried']>(`${of(id)}/tries?sample=${encodeURIComponent(sample)}`, {
    document,
    revision: 0,
  })
/** @param again whether what was read of systems is read anew */
export const computeProof = (id: string, document: string, again = false) =>
  post<SheetView>(`${of(id)}/proof?again=${again}`, { document, revision: 0 })
export const asYaml = (document: string) =>
  post<Schemas['DocumentView']>('/api/desk/document', { document, revision: 0 })
export const fromYaml = (yaml: string) => post<Schemas['Imported']>('/api/desk/imported', { yaml })
export const readVersions = (id: string) =>
  get<VersionView[]>(`/api/desk/versions/${encodeURIComponent(id)}`)
export const readDifferences = (id: string, version: number, document: string) =>
  post<RuleDifference[]>(`/api/desk/versions/${encodeURIComponent(id)}/${version}/differences`, {
    document,
    revision: 0,
  })
export const copyDraft = (id: string, name: string, document: string) =>
  post<DraftView>('/api/desk/copies', { id, name, document })
export const readStarters = (from: PlaceView, to: PlaceView) =>
  get<Starter[]>(
    `/api/desk/starters?${new URLSearchParams({
      sourceSystem: from.system,
      sourceCollection: from.collection,
      targetSystem: to.system,
      targetCollection: to.collection,
    })}`,
  )
export const askPlace = (place: PlaceView) =>
  get<Schemas['PlaceAnswer']>(
    `/api/desk/places/${encodeURIComponent(place.system)}/${encodeURIComponent(place.collection)}`,
  )
export const readTable = (table: string) =>
  get<TableView>(`/api/tables/${encodeURIComponent(table)}`)
export const keepRows = (table: string, csv: string) =>
  putText<TableView>(`/api/tables/${encodeURIComponent(table)}/rows`, csv, 'text/csv')
export const readPlaces = () => get<PlacesView>('/api/desk/places')
export const readLiveBridges = () => get<Schemas['BridgeSummary'][]>('/api/bridges')
export const readLanguage = () => get<LanguageView>('/api/desk/language')
