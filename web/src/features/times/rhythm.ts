/** A rule of RFC 5545 as choices: what of it people say in one sentence. */
export interface Rhythm {
  every: number
  unit: Unit
  /** The days of the week on which it is, as MO and so on; in a week or a day. */
  days: string[]
  /** The day of the month: 1 to 31, or -1 for the last; 0 where a weekday of it is meant. */
  monthDay: number
  /** Which of a weekday in a month: 1 to 4, or -1 for the last. */
  nth: number
  weekday: string
  /** 1 to 12, for what is once a year. */
  month: number
}

export type Unit = 'HOURLY' | 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY'

export const UNITS: Record<Unit, string> = {
  HOURLY: 'hour',
  DAILY: 'day',
  WEEKLY: 'week',
  MONTHLY: 'month',
  YEARLY: 'year',
}
export const DAYS: Record<string, string> = {
  MO: 'Monday',
  TU: 'Tuesday',
  WE: 'Wednesday',
  TH: 'Thursday',
  FR: 'Friday',
  SA: 'Saturday',
  SU: 'Sunday',
}
export const NTH: Record<number, string> = {
  1: 'first',
  2: 'second',
  3: 'third',
  4: 'fourth',
  [-1]: 'last',
}
export const MONTHS = Array.from({ length: 12 }, (_, month) =>
  new Date(Date.UTC(2026, month, 1)).toLocaleString('en-GB', { month: 'long', timeZone: 'UTC' }),
)

const CODES = ['SU', 'MO', 'TU', 'WE', 'TH', 'FR', 'SA']

/** What a rule with nothing but its unit means, from the day on which it begins. */
function begun(start: string): Rhythm {
  const day = new Date(`${start.slice(0, 10)}T00:00:00Z`)
  return {
    every: 1,
    unit: 'WEEKLY',
    days: [],
    monthDay: day.getUTCDate(),
    nth: 1,
    weekday: CODES[day.getUTCDay()] ?? 'MO',
    month: day.getUTCMonth() + 1,
  }
}

/** Which parts a rule of each unit may have so that it can be said by choices. */
const SAID: Record<Unit, string[]> = {
  HOURLY: [],
  DAILY: [],
  WEEKLY: ['BYDAY'],
  MONTHLY: ['BYDAY', 'BYMONTHDAY'],
  YEARLY: ['BYMONTH', 'BYMONTHDAY'],
}

/**
 * @param start the first day from which it counts, which says on which day it is if the rule does
 *   not
 * @return null if the rule says more than there are choices for
 */
export function rhythmOf(rule: string, start: string): Rhythm | null {
  const parts = Object.fromEntries(
    rule.split(';').map((part) => part.split('=') as [string, string]),
  )
  const unit = parts.FREQ as Unit
  const known = ['FREQ', 'INTERVAL', ...(SAID[unit] ?? [])]
  if (!(unit in UNITS) || Object.keys(parts).some((part) => !known.includes(part))) return null
  const rhythm: Rhythm = { ...begun(start), unit, every: Number(parts.INTERVAL ?? 1) }
  const days = parts.BYDAY?.split(',') ?? []
  const monthDays = parts.BYMONTHDAY?.split(',').map(Number) ?? []
  if (unit === 'WEEKLY') {
    return days.some((day) => !(day in DAYS))
      ? null
      : { ...rhythm, days: days.length ? days : [rhythm.weekday] }
  }
  if (monthDays.length > 1 || days.length > 1 || (monthDays.length && days.length)) return null
  if (monthDays.length) {
    const [monthDay = 1] = monthDays
    if (monthDay < -1) return null
    rhythm.monthDay = monthDay
  }
  if (days.length) {
    const counted = /^(-?\d)([A-Z]{2})$/.exec(days[0]!)
    if (!counted || !(Number(counted[1]) in NTH)) return null
    rhythm.monthDay = 0
    rhythm.nth = Number(counted[1])
    rhythm.weekday = counted[2]!
  }
  if (parts.BYMONTH) {
    if (!/^\d+$/.test(parts.BYMONTH) || !monthDays.length) return null
    rhythm.month = Number(parts.BYMONTH)
  }
  return rhythm
}

/** The rule that says what was chosen. */
export function ruleOf(rhythm: Rhythm): string {
  const parts = [`FREQ=${rhythm.unit}`]
  if (rhythm.every > 1) parts.push(`INTERVAL=${rhythm.every}`)
  if (rhythm.unit === 'WEEKLY') {
    const days = Object.keys(DAYS).filter((day) => rhythm.days.includes(day))
    parts.push(`BYDAY=${(days.length ? days : [rhythm.weekday]).join(',')}`)
  }
  if (rhythm.unit === 'YEARLY') {
    parts.push(`BYMONTH=${rhythm.month}`, `BYMONTHDAY=${rhythm.monthDay || 1}`)
  }
  if (rhythm.unit === 'MONTHLY') {
    parts.push(
      rhythm.monthDay ? `BYMONTHDAY=${rhythm.monthDay}` : `BYDAY=${rhythm.nth}${rhythm.weekday}`,
    )
  }
  return parts.join(';')
}
