import { describe, expect, it } from 'vitest'
import { cellsOf } from '@/shared/format/csv'
import { filled, pasted, renamed, told, withColumn, withoutColumn, type Sheet } from './sheet'

const SHEET: Sheet = {
  keys: ['place'],
  values: [{ name: 'crew', type: 'person' }],
  rows: [
    ['Palm walk', 'bu-14'],
    ['Fern gully', 'bu-12'],
  ],
}

describe('a sheet', () => {
  it('takes pasted cells from a place on and grows by the rows that are missing', () => {
    expect(pasted(SHEET, 1, 0, [['Moss', 'bu-11', 'too wide'], ['Rose steps']]).rows).toEqual([
      ['Palm walk', 'bu-14'],
      ['Moss', 'bu-11'],
      ['Rose steps', ''],
    ])
    expect(pasted(SHEET, 0, 1, [['x'], ['y']]).rows).toEqual([
      ['Palm walk', 'x'],
      ['Fern gully', 'y'],
    ])
  })

  it('is filled by the names of columns in whichever order, or as they stand', () => {
    const swapped = cellsOf('crew;place\nbu-1;North\n')
    expect(filled(SHEET, swapped).rows).toEqual([['North', 'bu-1']])
    expect(filled(SHEET, cellsOf('North\tbu-1\nSouth\tbu-2')).rows).toEqual([
      ['North', 'bu-1'],
      ['South', 'bu-2'],
    ])
  })

  it('keeps its cells when columns come, go and are called otherwise', () => {
    const more = withColumn(SHEET, 'since', 'day')
    expect(more.rows[0]).toEqual(['Palm walk', 'bu-14', ''])
    expect(withoutColumn(more, 1)).toEqual({
      keys: ['place'],
      values: [{ name: 'since', type: 'day' }],
      rows: [
        ['Palm walk', ''],
        ['Fern gully', ''],
      ],
    })
    expect(renamed(SHEET, 1, 'who').values[0]).toEqual({ name: 'who', type: 'person' })
    expect(renamed(SHEET, 0, 'where').keys).toEqual(['where'])
  })

  it('leaves rows out that say nothing', () => {
    expect(
      told({
        ...SHEET,
        rows: [
          ['', ' '],
          ['a', ''],
        ],
      }),
    ).toEqual([['a', '']])
  })
})

// RFC 4180 section 2, rules 1 to 7.
describe('cells of a text', () => {
  it.each([
    [
      'aaa,bbb\r\nzzz,yyy',
      [
        ['aaa', 'bbb'],
        ['zzz', 'yyy'],
      ],
    ],
    [
      '"aaa","b\r\nbb"\r\nzzz,yyy',
      [
        ['aaa', 'b\r\nbb'],
        ['zzz', 'yyy'],
      ],
    ],
    ['"aaa","b""bb"', [['aaa', 'b"bb']]],
    ['"a;b";c\n', [['a;b', 'c']]],
    ['a\t"b\tc"\n\n', [['a', 'b\tc']]],
    ['one\ntwo\n', [['one'], ['two']]],
    ['', []],
  ])('%j', (text, cells) => {
    expect(cellsOf(text)).toEqual(cells)
  })
})
