import { del, get, post, put, type Schemas } from '@/shared/http/client'

export type Incident = Schemas['IncidentLine']
export type IncidentStory = Schemas['IncidentView']
export type Finding = Schemas['FindingView']
export type FailureGroup = Schemas['GroupView']

export const readIncidents = () => get<Schemas['Incidents']>('/api/incidents')
export const readEarlier = (before: number) =>
  get<Schemas['Incidents']>(`/api/incidents?before=${before}`)
export const readIncident = (id: string) => get<IncidentStory>(`/api/incidents/${id}`)
export const mend = (id: number, text: string) => put(`/api/incidents/${id}/mending`, { text })
export const leave = (id: number) => del(`/api/incidents/${id}/mending`)
export const note = (id: number, text: string) => post(`/api/incidents/${id}/notes`, { text })
export const lookAgain = (id: number) => post<IncidentStory>(`/api/incidents/${id}/look`)

export type Tried = Schemas['TrialOutcome']

export const readAlarms = () => get<Schemas['AlarmDocument']>('/api/alarms')
export const saveAlarms = (document: string) =>
  put<Schemas['AlarmDocument']>('/api/alarms', { document })
export const tryAlarms = () => post<Tried[]>('/api/alarms/try')
