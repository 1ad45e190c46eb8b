import { describe, expect, it } from 'vitest'
import { manyOf, origin, others, telling, type Limit } from './words'

const now = new Date('2026-11-26T12:00:00Z')
const limit = (over: Partial<Limit>): Limit => ({
  kind: 'CREATE',
  most: 60,
  busiest: null,
  busiestFrom: null,
  times: 0,
  ...over,
})

describe('ceilings in words', () => {
  it('name what is counted', () => {
    expect(manyOf(1, 'CREATE')).toBe('1 new task')
    expect(manyOf(1200, 'MESSAGE')).toBe('1,200 messages')
  })

  it('of what a bridge neither states nor does say nothing', () => {
    const stated = limit({ most: 120 })
    const idle = limit({ kind: 'MESSAGE', busiest: 0 })
    const busy = limit({ kind: 'CHANGE', busiest: 4 })
    expect(telling([stated, busy, idle])).toEqual([stated, busy])
    expect(telling([idle])).toEqual([idle])
    expect(others([stated, busy, idle])).toBe('60 messages')
    expect(others([stated])).toBe('')
  })

  it('say what they are reckoned from', () => {
    const from = '2026-11-24T10:00:00Z'
    expect(origin(limit({}), 3600, now, 'UTC')).toBe('')
    expect(origin(limit({ busiest: 0 }), 3600, now, 'UTC')).toBe('reckoned without a past')
    expect(origin(limit({ busiest: 41, most: 123, busiestFrom: from }), 3600, now, 'UTC')).toBe(
      'reckoned: three times the busiest time, at most 41 in an hour so far, from Tue 24 Nov 10:00',
    )
    expect(origin(limit({ busiest: 4, busiestFrom: from }), 3600, now, 'UTC')).toBe(
      'reckoned: the usual least; at most 4 in an hour so far, from Tue 24 Nov 10:00',
    )
  })
})
