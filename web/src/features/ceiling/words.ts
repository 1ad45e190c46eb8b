import type { Schemas } from '@/shared/http/client'
import { counted } from '@/shared/format/words'
import { dayAndTime, everyText, spanText } from '@/shared/format/time'

export type Limit = Schemas['LimitView']

/** What one effect of a kind is called. */
const KINDS: Record<Limit['kind'], string> = {
  CREATE: 'new task',
  CHANGE: 'change',
  REMOVE: 'removal',
  MESSAGE: 'message',
}

/** How many of a kind, for example “3 new tasks”. */
export const manyOf = (many: number, kind: Limit['kind']) => counted(many, KINDS[kind])

/** “in an hour” */
export const inSpan = (perSeconds: number) => `in ${spanText(perSeconds * 1000)}`

/** “in the last hour” */
export const inTheLast = (perSeconds: number) => `in the last ${everyText(perSeconds)}`

/** The limits that say something: those that are stated, and those of what the bridge does. */
export function telling(limits: Limit[]): Limit[] {
  const some = limits.filter((one) => one.busiest === null || one.busiest > 0 || one.times > 0)
  return some.length ? some : limits.slice(0, 1)
}

/** The limits of what the bridge neither states nor did yet, as one phrase; empty if there are none. */
export function others(limits: Limit[]): string {
  const told = telling(limits)
  const left = limits.filter((one) => !told.includes(one))
  return left.length
    ? `${left[0]!.most} ${left.map((one) => KINDS[one.kind] + 's').join(' and ')}`
    : ''
}

/** Where the number of a limit comes from; empty for one that is stated. */
export function origin(limit: Limit, perSeconds: number, now: Date, zone: string): string {
  if (limit.busiest === null) return ''
  if (!limit.busiestFrom) return 'reckoned without a past'
  // It is counted in half hours, so that seconds would say nothing.
  const from = dayAndTime(limit.busiestFrom, now, zone).replace(/:\d\d$/, '')
  const most = `at most ${limit.busiest} ${inSpan(perSeconds)} so far, from ${from}`
  return limit.most === 3 * limit.busiest
    ? `reckoned: three times the busiest time, ${most}`
    : `reckoned: the usual least; ${most}`
}
