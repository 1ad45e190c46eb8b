import { del, get, put, type Schemas } from '@/shared/http/client'

export type Row = Schemas['RegisterRow']
export type SavedView = Schemas['SavedView']
export type CardWish = Schemas['CardWish']

export const readRegister = () => get<Schemas['RegisterPage']>('/api/register')
export const sayWhose = (id: string, wish: CardWish) =>
  put<Row>(`/api/register/bridges/${encodeURIComponent(id)}`, wish)

const VIEWS = '/api/register/views'
export const keepView = (name: string, query: string) => put<SavedView[]>(VIEWS, { name, query })
export const removeView = (name: string) => del(`${VIEWS}?name=${encodeURIComponent(name)}`)
