import { describe, expect, it } from 'vitest'
import { differs, reasonOf, reasonsOf } from './reasons'

type Row = Parameters<typeof differs>[0]
const cell = (odd: 'NO' | 'EMPTY' | 'WARNED' | 'FAILED', why = '', live: string | null = null) => ({
  text: '',
  odd,
  why,
  live,
})
const row = (...cells: ReturnType<typeof cell>[]) =>
  ({ cells, liveVerdict: null }) as unknown as Row

describe('why cells are odd', () => {
  it('is one reason for cells that differ only in their values, the most frequent first', () => {
    const rows = [
      row(cell('FAILED', '“21/11/26” is no day.'), cell('EMPTY')),
      row(cell('FAILED', '“yesterday” is no day.'), cell('NO')),
      row(cell('WARNED', 'shortened from 140 characters')),
    ]
    expect(reasonsOf(rows)).toEqual([
      { words: 'failed: “…” is no day.', cells: 2 },
      { words: 'empty', cells: 1 },
      { words: 'to look at: shortened from … characters', cells: 1 },
    ])
    expect(reasonOf(cell('NO', 'anything'))).toBe('')
  })

  it('is not what makes an event differ from the live version', () => {
    expect(differs(row(cell('FAILED', 'x')))).toBe(false)
    expect(differs(row(cell('NO', '', '')))).toBe(true)
    expect(differs({ ...row(), liveVerdict: 'create' })).toBe(true)
  })
})
