import type { PollView, SystemView } from './api'
import { pollOf } from './pollOf'

type Quota = NonNullable<SystemView['quota']>

/** A system that does not answer as it should. */
export interface Trouble {
  system: string
  name: string
  where: string
  problem: string
}

/** How much of what a system may hold is there already. */
export function fullness(quota: Quota): string {
  return `${quota.used.toLocaleString('en')} of ${quota.most.toLocaleString('en')} ${quota.of}`
}

/** What is wrong with systems just now: looked at, or met while asking what changed. */
export function troubles(systems: SystemView[], polls: PollView[]): Trouble[] {
  return systems.flatMap((system) => {
    const full = system.quota?.nearlyFull
      ? [{ where: '', problem: `It is nearly full: ${fullness(system.quota)}. Make room there.` }]
      : []
    const found = system.collections.flatMap((collection) => {
      const poll = pollOf(polls, system.id, collection)
      const changed = collection.changes.map((one) => `${one.text}.`).join(' ')
      const problem = collection.problem || poll?.problem || changed
      return problem ? [{ where: collection.name, problem }] : []
    })
    // One cause for all of its collections is said once.
    const one = found.length > 1 && found.every((each) => each.problem === found[0]!.problem)
    return [...full, ...(one ? [{ ...found[0]!, where: '' }] : found)].map((each) => ({
      system: system.id,
      name: system.name,
      ...each,
    }))
  })
}
