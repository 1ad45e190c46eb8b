import { counted } from '@/shared/format/words'
import type { PollView } from './api'

/**
 * How a collection is asked; of places that are described alike the one that answered longest ago,
 * with how many of them have a problem.
 */
export function pollOf(
  polls: PollView[],
  system: string,
  collection: { id: string; places: number },
): PollView | undefined {
  const of = polls.filter((one) => one.system === system)
  if (!collection.places) return of.find((one) => one.collection === collection.id)
  const places = of.filter((one) => one.collection.startsWith(`${collection.id}:`))
  const failing = places.filter((one) => one.problem)
  const oldest = [...(failing.length ? failing : places)].sort((one, other) =>
    (one.askedAt ?? '').localeCompare(other.askedAt ?? ''),
  )[0]
  return oldest && failing.length
    ? {
        ...oldest,
        problem: `${failing.length} of ${counted(places.length, 'place')}: ${oldest.problem}`,
      }
    : oldest
}
