import { describe, expect, it } from 'vitest'
import { dayOf, later, longDay, shortDay } from './days'

describe('days', () => {
  it('are counted over the end of a month and of a year', () => {
    expect(later('2026-12-31', 1)).toBe('2027-01-01')
    expect(later('2028-03-01', -1)).toBe('2028-02-29')
  })

  it('are those of a zone', () => {
    expect(dayOf('2026-12-03T20:00:00Z', 'Pacific/Auckland')).toBe('2026-12-04')
    expect(dayOf('2026-12-03T20:00:00Z', 'Europe/Lisbon')).toBe('2026-12-03')
  })

  it('are named', () => {
    expect(shortDay('2026-11-30')).toBe('Mon 30 Nov')
    expect(longDay('2026-11-30')).toBe('Monday 30 November 2026')
  })
})
