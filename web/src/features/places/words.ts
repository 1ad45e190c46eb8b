import { dayAndTime } from '@/shared/format/time'
import type { HeardPlace, Places } from './api'

/** How what comes from a place is far from usual. */
export function oddWords(odd: NonNullable<HeardPlace['odd']>, now: Date, zone: string): string {
  const usual = odd.usual < 10 ? odd.usual.toFixed(1) : String(Math.round(odd.usual))
  const since = dayAndTime(odd.since, now, zone)
  return odd.silent
    ? `silent since ${since}, ${usual} would be usual`
    : `${odd.came} since ${since}, ${usual} would be usual`
}

/** How much of the bridge's ceiling came of a place: of the kind of which it took most. */
export function shareOf(place: HeardPlace, of: Places): string {
  const kinds = [
    { used: place.creates, most: of.mostCreates, words: 'created' },
    { used: place.changes, most: of.mostChanges, words: 'updated' },
    { used: place.messages, most: of.mostMessages, words: 'said' },
  ].filter((kind) => kind.used > 0)
  if (!kinds.length) return '–'
  const most = kinds.reduce((one, other) =>
    other.used / other.most > one.used / one.most ? other : one,
  )
  return `${most.used} of ${most.most} ${most.words}`
}
