import { describe, expect, it } from 'vitest'
import { csvOf } from './csv'

// RFC 4180 section 2: CRLF ends a line, quotes inside a quoted cell are doubled.
describe('lines as CSV', () => {
  it('quote every cell and double the quotes inside', () => {
    expect(csvOf(['a', 'b'], [['x "y"', 'one, two\nthree']])).toBe(
      '"a","b"\r\n"x ""y""","one, two\nthree"\r\n',
    )
  })

  it('hold the heading alone if there is nothing else', () => {
    expect(csvOf(['a'], [])).toBe('"a"\r\n')
  })
})
