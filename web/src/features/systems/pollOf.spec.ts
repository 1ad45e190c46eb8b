import { describe, expect, it } from 'vitest'
import type { PollView } from './api'
import { pollOf } from './pollOf'

const poll = (collection: string, askedAt: string | null, problem = '') =>
  ({ system: 'boards', collection, askedAt, problem, everySeconds: 300 }) as PollView

const POLLS = [
  poll('tasks', '2026-11-29T08:00:00Z'),
  poll('lists:a', '2026-11-29T08:00:00Z'),
  poll('lists:b', '2026-11-29T07:00:00Z'),
  poll('lists:c', '2026-11-29T06:00:00Z', 'Boards answered 500'),
]

describe('how a collection is asked', () => {
  it('is its own poll where it is described by itself', () => {
    expect(pollOf(POLLS, 'boards', { id: 'tasks', places: 0 })).toBe(POLLS[0])
    expect(pollOf(POLLS, 'boards', { id: 'lists', places: 0 })).toBeUndefined()
    expect(pollOf(POLLS, 'other', { id: 'tasks', places: 0 })).toBeUndefined()
  })

  it('is that of the place which waits longest, where many are described alike', () => {
    expect(pollOf(POLLS.slice(0, 3), 'boards', { id: 'lists', places: 9 })).toBe(POLLS[2])
    expect(pollOf([], 'boards', { id: 'lists', places: 9 })).toBeUndefined()
  })

  it('says how many of many places have a problem', () => {
    expect(pollOf(POLLS, 'boards', { id: 'lists', places: 9 })?.problem).toBe(
      '1 of 3 places: Boards answered 500',
    )
  })
})
