import { get, post, type Schemas } from '@/shared/http/client'

export type Possible = Schemas['DuplicateLine']
export type Possibles = Schemas['DuplicatePage']
export type Sides = Schemas['SidesView']
export type Pair = Schemas['PairView']

export const readPossibles = (before?: number) =>
  get<Possibles>(`/api/duplicates${before === undefined ? '' : `?before=${before}`}`)
export const readSides = (id: number) => get<Sides>(`/api/duplicates/${id}/sides`)
export const answer = (id: number, same: boolean) =>
  post<Possibles>(`/api/duplicates/${id}/answer`, { same })
export const findPairs = (id: string) => get<Pair[]>(`/api/pairs?id=${encodeURIComponent(id)}`)

export type Disagreement = Schemas['Disagreement']
export type Disagreeing = Schemas['DisagreementPage']
export type Settling = Schemas['DisagreementAnswer']

export const readDisagreements = () => get<Disagreeing>('/api/disagreements')
/** Says what is right; it is written to where it is otherwise. */
export const settle = (id: number, answer: Settling) =>
  post<Schemas['Answered']>(`/api/disagreements/${id}/answer`, answer)

export type KeptPair = Schemas['KeptPair']

const keptPair = (pair: KeptPair) =>
  `/api/kept-pairs/${encodeURIComponent(pair.bridge)}/${encodeURIComponent(pair.key)}`
export const findKeptPairs = (id: string) =>
  get<KeptPair[]>(`/api/kept-pairs?id=${encodeURIComponent(id)}`)
export const lookAgain = (pair: KeptPair) => post<Schemas['Looking']>(`${keptPair(pair)}/look`, {})
/** Writes one of both over with what the other has, wherever they do not stand for each other. */
export const followOnce = (pair: KeptPair, leads: Schemas['FollowWish']['leads']) =>
  post<Schemas['Looking']>(`${keptPair(pair)}/follow`, { leads })
export type PairStep = Schemas['PairStep']
export type StepOfField = Schemas['StepOfField']

/**
 * What became of a pair, the newest first.
 *
 * @param before only what is older than this
 */
export const readSteps = (pair: KeptPair, before?: number) =>
  get<Schemas['PairSteps']>(
    `${keptPair(pair)}/steps${before === undefined ? '' : `?before=${before}`}`,
  )
/** Lets a task that was left as it is go across after all. */
export const takeUp = (pair: KeptPair) => post<Schemas['Looking']>(`${keptPair(pair)}/take-up`, {})
export const part = (pair: KeptPair) => post<unknown>(`${keptPair(pair)}/part`, {})
