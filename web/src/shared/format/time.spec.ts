import { describe, expect, it } from 'vitest'
import {
  age,
  clockText,
  dayAndTime,
  fullTime,
  momentsIn,
  placeName,
  preciseTime,
  span,
  startOfDay,
} from './time'

const LISBON = 'Europe/Lisbon'
const NOW = new Date('2026-11-24T14:32:05Z')

describe('times are shown in the stated zone, whatever the machine is set to', () => {
  it.each([
    ['2026-07-01T23:30:00Z', LISBON, '2026-07-02 00:30:00'],
    ['2026-11-24T23:30:00Z', LISBON, '2026-11-24 23:30:00'],
    ['2026-11-24T02:00:00Z', 'America/Halifax', '2026-11-23 22:00:00'],
    ['2026-11-24T12:00:00Z', 'Pacific/Auckland', '2026-11-25 01:00:00'],
  ])('%s in %s is %s', (at, zone, shown) => {
    expect(fullTime(at, zone)).toBe(shown)
  })

  it('says today and yesterday by the days of the zone', () => {
    expect(dayAndTime('2026-11-24T00:10:00Z', NOW, LISBON)).toBe('today 00:10:00')
    expect(dayAndTime('2026-11-24T00:10:00Z', NOW, 'America/Halifax')).toBe('yesterday 20:10:00')
    expect(dayAndTime('2026-11-20T09:00:00Z', NOW, LISBON)).toBe('Fri 20 Nov 09:00:00')
  })

  it('keeps milliseconds where they matter', () => {
    expect(preciseTime('2026-11-24T13:58:07.104559Z', LISBON)).toBe('13:58:07.104')
  })

  it('tells the clock', () => {
    expect(clockText(NOW, LISBON)).toEqual({ day: 'Tue 24 Nov', time: '14:32' })
    expect(placeName('America/Argentina/Buenos_Aires')).toBe('Buenos Aires')
  })
})

describe('a day begins', () => {
  // Facts of the IANA time zone database.
  it.each([
    ['2026-11-24', LISBON, '2026-11-24T00:00:00.000Z'],
    ['2026-07-01', LISBON, '2026-06-30T23:00:00.000Z'],
    ['2026-11-24', 'America/Halifax', '2026-11-24T04:00:00.000Z'],
    ['2026-11-24', 'Pacific/Auckland', '2026-11-23T11:00:00.000Z'],
    ['2026-03-29', LISBON, '2026-03-29T00:00:00.000Z'],
    ['2026-03-30', LISBON, '2026-03-29T23:00:00.000Z'],
    ['2026-10-26', LISBON, '2026-10-26T00:00:00.000Z'],
    // Clocks go forward over midnight, so the day begins at one o'clock.
    ['2026-09-06', 'America/Santiago', '2026-09-06T04:00:00.000Z'],
    // Clocks go back to 23:00, so midnight comes once, an hour later.
    ['2026-04-05', 'America/Santiago', '2026-04-05T04:00:00.000Z'],
  ])('%s in %s at %s', (day, zone, begins) => {
    expect(startOfDay(day, zone).toISOString()).toBe(begins)
  })

  it('and so does a later one, over a change of clocks', () => {
    expect(startOfDay('2026-03-29', LISBON, 1).toISOString()).toBe('2026-03-29T23:00:00.000Z')
  })
})

describe('spans have a unit that fits', () => {
  it.each([
    [180, '0.2 ms'],
    [41_000, '41 ms'],
    [3_020_000, '3.02 s'],
    [240_000_000, '4 min'],
  ])('%i microseconds are %s', (micros, words) => {
    expect(span(micros)).toBe(words)
  })

  it.each([
    ['2026-11-24T14:31:53Z', '12 s'],
    ['2026-11-24T14:28:05Z', '4 min'],
    ['2026-11-24T11:32:05Z', '3 h'],
    ['2026-11-19T14:32:05Z', '5 days'],
    ['2026-11-24T14:33:00Z', '0 s'],
  ])('what began at %s is %s old', (at, words) => {
    expect(age(at, NOW)).toBe(words)
  })
})

it('shows quoted moments as people read them, and leaves the rest', () => {
  expect(momentsIn('Board: Due “2026-12-03T17:00:00Z”, Title “At 2026”', LISBON)).toBe(
    'Board: Due “3 Dec 2026, 17:00”, Title “At 2026”',
  )
})
