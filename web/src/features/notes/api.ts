import { del, get, post, put, type Schemas } from '@/shared/http/client'

export type Note = Schemas['NoteView']
export type NoteWish = Schemas['NoteWish']

export type NotePicture = Schemas['NotePicture']

const notes = (bridge: string) => `/api/bridges/${encodeURIComponent(bridge)}/notes`
export const readNotes = (bridge: string) => get<Note[]>(notes(bridge))
export const addNote = (bridge: string, wish: NoteWish) => post<Note[]>(notes(bridge), wish)
export const changeNote = (bridge: string, id: number, wish: NoteWish) =>
  put<Note[]>(`${notes(bridge)}/${id}`, wish)

const pictures = (bridge: string, note: number) => `${notes(bridge)}/${note}/pictures`
/** Where a picture stands. */
export const addressOf = (bridge: string, note: number, picture: number) =>
  `${pictures(bridge, note)}/${picture}`
export const addPicture = (bridge: string, note: number, file: File, shows: string) =>
  post(`${pictures(bridge, note)}?shows=${encodeURIComponent(shows)}`, file, file.type)
export const takePictureAway = (bridge: string, note: number, picture: number) =>
  del(addressOf(bridge, note, picture))
