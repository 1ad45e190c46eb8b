import { get, post, put, type Schemas } from '@/shared/http/client'

export type Note = Schemas['NoteView']
export type NoteWish = Schemas['NoteWish']

const notes = (bridge: string) => `/api/bridges/${encodeURIComponent(bridge)}/notes`
export const readNotes = (bridge: string) => get<Note[]>(notes(bridge))
export const addNote = (bridge: string, wish: NoteWish) => post<Note[]>(notes(bridge), wish)
export const changeNote = (bridge: string, id: number, wish: NoteWish) =>
  put<Note[]>(`${notes(bridge)}/${id}`, wish)
