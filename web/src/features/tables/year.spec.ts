import { describe, expect, it } from 'vitest'
import { monthsOf } from './year'

const WEEK = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday']

describe('a year at a glance', () => {
  it('has every day once, in weeks from Monday (ISO 8601)', () => {
    const months = monthsOf(2028, WEEK, new Map())
    const days = months.flatMap((month) => month.weeks.flat()).filter((day) => day !== null)
    expect(days).toHaveLength(366)
    expect(new Set(days.map((day) => day.day)).size).toBe(366)
    // 29 February 2028 is a Tuesday.
    const february = months[1]!.weeks.at(-1)!
    expect(february.map((day) => day?.number)).toEqual([
      28,
      29,
      undefined,
      undefined,
      undefined,
      undefined,
      undefined,
    ])
  })

  it('says what each day is, in words too', () => {
    const off = new Map([
      ['2026-12-25', { sort: 'holiday' as const, name: 'Christmas' }],
      ['2026-12-28', { sort: 'closure' as const, name: 'stocktaking' }],
    ])
    const days = new Map(
      monthsOf(2026, WEEK, off)[11]!
        .weeks.flat()
        .filter((day) => day !== null)
        .map((day) => [day.day, day]),
    )
    expect(days.get('2026-12-24')).toMatchObject({ sort: 'worked', name: 'worked on' })
    expect(days.get('2026-12-25')).toMatchObject({ sort: 'holiday', name: 'Christmas' })
    expect(days.get('2026-12-26')).toMatchObject({ sort: 'rest' })
    expect(days.get('2026-12-28')).toMatchObject({ sort: 'closure-day', name: 'stocktaking' })
  })
})
