import { get, post, type Schemas } from '@/shared/http/client'

export type Places = Schemas['PlacesOfBridge']
export type HeardPlace = Schemas['HeardPlace']
export type OtherPlace = Schemas['OtherPlace']
export type TakenPlace = Schemas['TakenPlace']
export type Alike = Schemas['AlikePlaces']

const at = (bridge: string) => `/api/bridges/${encodeURIComponent(bridge)}/places`

export const readPlacesOf = (bridge: string) => get<Places>(at(bridge))

export const takePlaces = (bridge: string, version: number, places: TakenPlace[]) =>
  post<Places>(`${at(bridge)}/take`, { version, places })

export const leaveOut = (bridge: string, version: number, ids: string[]) =>
  post<Places>(`${at(bridge)}/leave-out`, { version, ids })

export const offerAgain = (bridge: string, version: number, ids: string[]) =>
  post<Places>(`${at(bridge)}/offer-again`, { version, ids })

/** The places like one that a bridge begins at. */
export function readAlike(system: string, collection: string, kinds: string[]): Promise<Alike> {
  const query = new URLSearchParams({ system, collection })
  kinds.forEach((kind) => query.append('kind', kind))
  return get<Alike>(`/api/desk/places-alike?${query}`)
}
