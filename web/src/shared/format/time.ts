/** Times as people read them, always in a stated zone. */

const LOCALE = 'en-GB'

function parts(at: Date, zone: string, options: Intl.DateTimeFormatOptions): string {
  return new Intl.DateTimeFormat(LOCALE, { timeZone: zone, ...options }).format(at)
}

/** `Europe/Lisbon` → `Lisbon` */
export function placeName(zone: string): string {
  return (zone.split('/').pop() ?? zone).replaceAll('_', ' ')
}

/** `14:32:05` */
export function timeOfDay(at: string | Date, zone: string): string {
  return parts(new Date(at), zone, { hour: '2-digit', minute: '2-digit', second: '2-digit' })
}

/** `14:32:05.104` */
export function preciseTime(at: string, zone: string): string {
  return parts(new Date(at), zone, {
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    fractionalSecondDigits: 3,
  })
}

/** `Tue 24 Nov` and `14:32` */
export function clockText(at: Date, zone: string): { day: string; time: string } {
  const day = parts(at, zone, { weekday: 'short', day: 'numeric', month: 'short' })
  return { day, time: parts(at, zone, { hour: '2-digit', minute: '2-digit' }) }
}

/** `2026-11-24 14:32:05` */
export function fullTime(at: string, zone: string): string {
  const date = new Date(at)
  const day = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short' }).format(date)
  return `${day} ${timeOfDay(date, zone)}`
}

const DAY = 86_400_000

/** How far the clocks of a zone are ahead of UTC at a moment, in milliseconds. */
function ahead(at: number, zone: string): number {
  const shown = new Intl.DateTimeFormat('sv-SE', {
    timeZone: zone,
    dateStyle: 'short',
    timeStyle: 'medium',
  }).format(new Date(at))
  return Date.parse(`${shown.replace(' ', 'T')}Z`) - Math.floor(at / 1000) * 1000
}

/**
 * The moment at which a day (`2026-11-24`) begins in a zone: its midnight, the first if clocks go
 * back over it, or the moment at which they go forward over it.
 *
 * @param later how many days later than the day
 */
export function startOfDay(day: string, zone: string, later = 0): Date {
  return whenShown(Date.parse(`${day}T00:00:00Z`) + later * DAY, zone)
}

/** The moment at which clocks of a zone show a time, given as if they were at UTC. */
function whenShown(shown: number, zone: string): Date {
  const before = shown - ahead(shown - DAY, zone)
  const after = shown - ahead(shown + DAY, zone)
  const isShown = (at: number) => at + ahead(at, zone) === shown
  return new Date(isShown(before) || !isShown(after) ? before : after)
}

/** The moment that a person typed as `2026-11-24T09:30`, in a zone. */
export const momentTyped = (text: string, zone: string) =>
  whenShown(Date.parse(`${text}:00Z`), zone)

/** A moment as a person would type it in a zone: `2026-11-24T09:30`. */
export function typed(at: Date, zone: string): string {
  return new Date(at.getTime() + ahead(at.getTime(), zone)).toISOString().slice(0, 16)
}

/** `today 14:32:05`, `yesterday 09:10:00`, `Mon 23 Nov 09:10:00` */
export function dayAndTime(at: string, now: Date, zone: string): string {
  const date = new Date(at)
  const dayOf = (d: Date) => parts(d, zone, { year: 'numeric', month: '2-digit', day: '2-digit' })
  const time = timeOfDay(date, zone)
  if (dayOf(date) === dayOf(now)) return `today ${time}`
  if (dayOf(date) === dayOf(new Date(now.getTime() - 86_400_000))) return `yesterday ${time}`
  const day = parts(date, zone, { weekday: 'short', day: 'numeric', month: 'short' })
  return `${day} ${time}`
}

/** `12 s`, `4 min`, `3 h`, `5 days` */
export function age(at: string, now: Date): string {
  const seconds = Math.max(0, Math.round((now.getTime() - new Date(at).getTime()) / 1000))
  if (seconds < 90) return `${seconds} s`
  if (seconds < 90 * 60) return `${Math.round(seconds / 60)} min`
  if (seconds < 36 * 3600) return `${Math.round(seconds / 3600)} h`
  return `${Math.round(seconds / 86_400)} days`
}

/** `0.2 ms`, `41 ms`, `3.02 s`, `4 min` from microseconds */
export function span(micros: number): string {
  if (micros < 1000) return `${(micros / 1000).toFixed(1)} ms`
  const millis = micros / 1000
  if (millis < 1000) return `${Math.round(millis)} ms`
  if (millis < 120_000) return `${(millis / 1000).toFixed(2)} s`
  return `${Math.round(millis / 60_000)} min`
}

const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?Z$/

/** A text as it is, or, where it is a moment, its day and time as seen in a zone. */
export function momentText(text: string, zone: string): string {
  if (!MOMENT.test(text)) return text
  return parts(new Date(text), zone, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  })
}

/** A text in which each quoted moment is shown as seen in a zone. */
export const momentsIn = (text: string, zone: string) =>
  text.replace(/(?<=“)[^“”]*(?=”)/g, (quoted) => momentText(quoted, zone))

/** The day of a moment as seen in a zone, for one that may lie in another year: `9 September 2027`. */
export const dayText = (at: string, zone: string) =>
  parts(new Date(at), zone, { day: 'numeric', month: 'long', year: 'numeric' })

/** A span of milliseconds: `350 ms`, `12 s`, `9 min`, `3 h`, `a minute`, `an hour`, `a day`. */
export function spanText(millis: number): string {
  if (millis === 60_000) return 'a minute'
  if (millis === 3_600_000) return 'an hour'
  if (millis === 86_400_000) return 'a day'
  if (millis < 1000) return `${Math.round(millis)} ms`
  if (millis < 90_000) return `${Math.round(millis / 1000)} s`
  if (millis < 90 * 60_000) return `${Math.round(millis / 60_000)} min`
  return `${Math.round(millis / 3_600_000)} h`
}

/** About how long a wait is: `a few seconds`, `4 minutes`, `3 hours`, `2 days`. */
export function about(seconds: number): string {
  if (seconds < 60) return 'a few seconds'
  if (seconds < 90 * 60) return several(Math.round(seconds / 60), 'minute')
  if (seconds < 36 * 3600) return several(Math.round(seconds / 3600), 'hour')
  return several(Math.round(seconds / 86_400), 'day')
}
const several = (many: number, unit: string) => `${many} ${unit}${many === 1 ? '' : 's'}`

/** An interval after “every”: `minute`, `5 min`, `hour`, `90 s`. */
export const everyText = (seconds: number) => spanText(seconds * 1000).replace(/^an? /, '')
