import { del, get, post, put, type Schemas } from '@/shared/http/client'

export type TableSummary = Schemas['TableSummary']
export type TableAbout = Schemas['TableAbout']
export type TableView = Schemas['TableView']
export type TableWish = Schemas['TableWish']
export type CalendarSummary = Schemas['CalendarSummary']
export type CalendarView = Schemas['CalendarView']
export type CalendarWish = Schemas['CalendarWish']
export type HolidayView = Schemas['HolidayView']
export type FileView = Schemas['FileView']

const table = (id: string) => `/api/tables/${encodeURIComponent(id)}`
const calendar = (id: string) => `/api/calendars/${encodeURIComponent(id)}`

export const readTables = () => get<TableSummary[]>('/api/tables')
export const readRows = (id: string) => get<TableView>(table(id))
export const readAbout = (id: string) => get<TableAbout>(`${table(id)}/about`)
export const keepTable = (id: string, wish: TableWish) => put<TableAbout>(table(id), wish)
export const removeTable = (id: string) => del(table(id))
export const readThen = (id: string, seq: number) =>
  get<Schemas['RowsThen']>(`${table(id)}/changes/${seq}`)

export const readCalendars = () => get<CalendarSummary[]>('/api/calendars')
export const readCalendar = (id: string) => get<CalendarView>(calendar(id))
export const keepCalendar = (id: string, wish: CalendarWish) =>
  put<CalendarView>(calendar(id), wish)
export const removeCalendar = (id: string) => del(calendar(id))
/** Reads the holidays of an iCalendar file; nothing is kept. */
export const readHolidays = (file: string) =>
  post<FileView>('/api/calendars/holidays', file, 'text/calendar')
