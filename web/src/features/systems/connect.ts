import { get, post, type Schemas } from '@/shared/http/client'

export type Described = Schemas['Described']
export type CollectionOfSystem = Schemas['CollectionOfSystem']
export type RemarkView = Schemas['RemarkView']
export type CallOutcome = Schemas['CallOutcome']

/** Where a description stands, and which of its collections are wanted. */
export interface DraftWish {
  address?: string
  description?: string
  collections?: string[]
}
export type OfferedCollection = Schemas['OfferedCollection']
export const readDraft = (wish: DraftWish) =>
  post<Schemas['DraftOfSystem']>('/api/connect/drafts', wish)
export const readDescribed = (document: string) =>
  post<Described>('/api/connect/descriptions', { document })
export type CertificateView = Schemas['Shown']
export const lookAtCertificates = (document: string) =>
  post<Schemas['Looked']>('/api/connect/certificates', { document })
export const tryCall = (wish: Schemas['CallWish']) => post<CallOutcome>('/api/connect/trials', wish)
export const keepSystem = (document: string, secrets: Record<string, string>) =>
  post<undefined>('/api/connect', { document, secrets })
export const readDocument = (id: string) =>
  get<Schemas['KeptDocument']>(`/api/connect/systems/${encodeURIComponent(id)}`)

/** A document that trusts something else, or what is usual if nothing is said. */
export function trusting(document: string, trust: string): string {
  const lines = document.split('\n')
  const at = lines.findIndex((line) => line.startsWith('trust:'))
  if (at >= 0) {
    let end = at + 1
    while (end < lines.length && (/^\s/.test(lines[end]!) || lines[end] === '')) end++
    lines.splice(at, end - at)
  }
  const before = lines.findIndex((line) => line.startsWith('collections:'))
  lines.splice(before < 0 ? lines.length : before, 0, ...(trust ? trust.split('\n') : []))
  return lines.join('\n')
}

/** What each call is for, as a person would say it. */
export const CALL_WORDS: Record<string, string> = {
  changes: 'Ask what changed',
  list: 'List the newest',
  find: 'Find one by its id',
  key: 'Look for our key',
  make: 'Make one',
  change: 'Change it',
  remove: 'Take it away',
}

/** The calls that write something there. */
export const WRITES = ['make', 'change', 'remove']
