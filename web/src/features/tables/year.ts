/** A year as months of weeks, with what each day is. */
export const WEEKDAYS = [
  'monday',
  'tuesday',
  'wednesday',
  'thursday',
  'friday',
  'saturday',
  'sunday',
]

export interface DayOff {
  sort: 'holiday' | 'closure'
  name: string
}

export interface Day {
  day: string
  number: number
  /** The class by which it is drawn. */
  sort: 'worked' | 'rest' | 'holiday' | 'closure-day'
  /** What it is, in words. */
  name: string
}

export interface Month {
  name: string
  /** Weeks from Monday to Sunday (ISO 8601); null where a day is of another month. */
  weeks: (Day | null)[][]
}

export function monthsOf(year: number, worked: string[], off: Map<string, DayOff>): Month[] {
  return Array.from({ length: 12 }, (_, month) => monthOf(year, month, worked, off))
}

function monthOf(year: number, month: number, worked: string[], off: Map<string, DayOff>): Month {
  const first = new Date(Date.UTC(year, month, 1))
  const days = new Date(Date.UTC(year, month + 1, 0)).getUTCDate()
  const before = (first.getUTCDay() + 6) % 7
  const cells: (Day | null)[] = Array<null>(before).fill(null)
  for (let number = 1; number <= days; number++) {
    const weekday = WEEKDAYS[(before + number - 1) % 7]!
    const day = new Date(Date.UTC(year, month, number)).toISOString().slice(0, 10)
    cells.push({ day, number, ...sortOf(off.get(day), worked.includes(weekday)) })
  }
  while (cells.length % 7) cells.push(null)
  const weeks: (Day | null)[][] = []
  for (let i = 0; i < cells.length; i += 7) weeks.push(cells.slice(i, i + 7))
  return { name: first.toLocaleDateString('en', { month: 'long', timeZone: 'UTC' }), weeks }
}

function sortOf(off: DayOff | undefined, worked: boolean): Pick<Day, 'sort' | 'name'> {
  if (off) return { sort: off.sort === 'holiday' ? 'holiday' : 'closure-day', name: off.name }
  return worked
    ? { sort: 'worked', name: 'worked on' }
    : { sort: 'rest', name: 'no working weekday' }
}
