import { describe, expect, it } from 'vitest'
import { cellOf, dayFormOf, dayIn, fixedOf } from './cells'

const TEXT = { address: '/cells/done', name: 'done', type: 'text' }

describe('a part of when rows come round', () => {
  it('is a cell of the row, or the same for all', () => {
    expect(cellOf('/cells/every')).toBe('/cells/every')
    expect(cellOf({ value: '/cells/every', steps: ['trim'] })).toBe('/cells/every')
    expect(cellOf('Europe/Lisbon')).toBe('')
    expect(fixedOf('Europe/Lisbon')).toBe('Europe/Lisbon')
    expect(fixedOf({ always: '06:00' })).toBe('06:00')
    expect(fixedOf('/cells/zone')).toBe('')
    expect([cellOf(undefined), fixedOf(undefined)]).toEqual(['', ''])
  })

  it('reads a day from a text in the way in which it is written', () => {
    const read = dayIn(TEXT, 'words')
    expect(read).toEqual({
      value: '/cells/done',
      steps: [{ 'read-day': { pattern: 'd MMMM uuuu', locale: 'en' } }],
    })
    expect(dayFormOf(read)).toBe('words')
    expect(dayIn({ ...TEXT, type: 'day' }, 'words')).toBe('/cells/done')
    expect(dayIn(undefined, 'iso')).toBeUndefined()
    expect(dayFormOf({ value: '/cells/done', steps: ['trim'] })).toBe('')
  })
})
