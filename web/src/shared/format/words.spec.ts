import { describe, expect, it } from 'vitest'
import { counted, ordinal, pretty, withArticle } from './words'

describe('words', () => {
  it('counts with the right noun', () => {
    expect(counted(1, 'event')).toBe('1 event')
    expect(counted(3, 'event')).toBe('3 events')
  })

  it('gives a noun the article that fits', () => {
    expect(withArticle('task')).toBe('a task')
    expect(withArticle('exhibition')).toBe('an exhibition')
  })

  it.each([
    [1, '1st'],
    [2, '2nd'],
    [3, '3rd'],
    [4, '4th'],
    [11, '11th'],
    [12, '12th'],
    [22, '22nd'],
    [113, '113th'],
  ])('%i is %s', (n, words) => {
    expect(ordinal(n)).toBe(words)
  })

  it('lays out JSON and leaves other text alone', () => {
    expect(pretty('{"a":1}')).toBe('{\n  "a": 1\n}')
    expect(pretty('no json')).toBe('no json')
  })
})
