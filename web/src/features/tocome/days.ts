/** Days as `2026-11-30`, and what is counted in them. */

const DAY = 86_400_000
const at = (day: string) => Date.parse(`${day}T00:00:00Z`)

export const later = (day: string, days: number) =>
  new Date(at(day) + days * DAY).toISOString().slice(0, 10)

/** The day of a moment in a zone. */
export const dayOf = (moment: string | Date, zone: string) =>
  new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short' }).format(new Date(moment))

/** `Mon 30 Nov` */
export const shortDay = (day: string) =>
  new Date(at(day))
    .toLocaleDateString('en-GB', {
      timeZone: 'UTC',
      weekday: 'short',
      day: 'numeric',
      month: 'short',
    })
    .replace(',', '')

/** `Monday 30 November 2026` */
export const longDay = (day: string) =>
  new Date(at(day))
    .toLocaleDateString('en-GB', {
      timeZone: 'UTC',
      weekday: 'long',
      day: 'numeric',
      month: 'long',
      year: 'numeric',
    })
    .replace(',', '')
