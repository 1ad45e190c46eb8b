import { describe, expect, it } from 'vitest'
import { answerOf } from './answer'
import type { Hearing, Where } from './api'

const bridge = (part: Partial<Hearing> = {}): Hearing => ({
  id: 'school-visit',
  name: 'School visit',
  held: false,
  kinds: ['arrived'],
  trace: 't1',
  verdict: 'CREATE',
  reason: '',
  now: 'CARRIES',
  because: '',
  ...part,
})
const where = (part: Partial<Where> = {}): Where => ({
  place: 'Mails of the Post Room',
  source: { state: 'THERE', problem: '', fields: [], page: '' },
  tells: true,
  asks: false,
  lastReceived: null,
  events: [],
  traces: [],
  bridges: [bridge()],
  tasks: [],
  incidents: [],
  fetchable: true,
  ...part,
})
const task = (state: Where['source']['state'], id = '7') => ({
  bridge: 'school-visit',
  place: 'Education of the Board',
  task: id,
  stands: '',
  now: { state, problem: '', fields: [], page: '' },
})

describe('where it is, in one sentence', () => {
  it.each<[string, Partial<Where>]>([
    ['Its task is there, at Education of the Board.', { tasks: [task('THERE')] }],
    [
      'It had a task at Education of the Board, which is not there any more.',
      { tasks: [task('NOT_THERE')] },
    ],
    [
      'It has a task at Education of the Board; whether that is there could not be asked.',
      { tasks: [task('NO_ANSWER')] },
    ],
    ['No bridge at work hears of it.', { bridges: [] }],
    [
      'It came to School visit and failed: The day is none.',
      { bridges: [bridge(), bridge({ verdict: 'FAILED', reason: 'The day is none.' })] },
    ],
    [
      'It came to School visit, which passed it by: it is not flagged.',
      { bridges: [bridge({ verdict: 'PASSED_BY', reason: 'it is not flagged' })] },
    ],
    ['It came to School visit and is under way.', { bridges: [bridge({ verdict: null })] }],
    [
      'It came to School visit, which is held.',
      { bridges: [bridge({ verdict: null, held: true })] },
    ],
    ['It came to School visit, and there is no task of it now.', {}],
    [
      'It is at its source, and its source never told of it.',
      { bridges: [bridge({ trace: null })] },
    ],
    [
      'It is at its source, and was not found there so far.',
      { bridges: [bridge({ trace: null })], tells: false },
    ],
    [
      'Its source does not have it.',
      {
        bridges: [bridge({ trace: null })],
        source: { state: 'NOT_THERE', problem: '', fields: [], page: '' },
      },
    ],
    [
      'Nothing was received of it.',
      {
        bridges: [bridge({ trace: null })],
        source: { state: 'NOT_ASKED', problem: '', fields: [], page: '' },
      },
    ],
  ])('%s', (sentence, part) => {
    expect(answerOf(where(part))).toBe(sentence)
  })
})
