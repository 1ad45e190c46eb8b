import { describe, expect, it } from 'vitest'
import type { Group } from '@/shared/tree'
import { collectionOf, groupOf, said, withPlaces, type Said } from './document'

const ONE: Group = {
  bridge: 'beds',
  from: { system: 'boards', collection: 'lists:bed-1', event: ['created'], every: 'PT1M' },
  to: { system: 'ledger', collection: 'lists:all' },
  lookups: {
    task: { in: 'boards/lists:bed-1', by: { id: '/id' }, none: 'fail' },
    other: { in: 'people/all', by: { id: '/who' }, none: 'fail' },
  },
  match: ['/id'],
  fields: {},
}
const NOTHING: Said = {
  how: 'one',
  of: 'lists',
  ids: [],
  leftOut: [],
  table: '',
  column: '',
  take: '',
}

describe('what a document says of its places', () => {
  it('is one place until it says otherwise', () => {
    expect(said(ONE)).toEqual({ ...NOTHING, of: '' })
  })

  it('is written and read back, and the match key tells the places apart', () => {
    const next: Said = { ...NOTHING, how: 'all', ids: ['bed-1', 'bed-2'], leftOut: ['bed-9'] }
    const many = withPlaces(ONE, next, 'lists:bed-1', 'lists:all')
    expect(said(many)).toEqual(next)
    expect(many.from).toEqual({
      system: 'boards',
      places: { of: 'lists', all: ['bed-1', 'bed-2'], 'left-out': ['bed-9'] },
      event: ['created'],
      every: 'PT1M',
    })
    expect(many.match).toEqual(['place/id', '/id'])
    expect((many.lookups as Group).task).toEqual({ in: 'place', by: { id: '/id' }, none: 'fail' })
    expect((many.lookups as Group).other).toEqual((ONE.lookups as Group).other)
  })

  it('writes to the place that a column names, and to one again without it', () => {
    const next: Said = { ...NOTHING, how: 'table', table: 'beds', column: 'bed', take: 'job' }
    const many = withPlaces(ONE, next, 'lists:bed-1', 'lists:all')
    expect(many.to).toEqual({ system: 'ledger', collection: { of: 'lists', take: 'job' } })
    expect(said(many)).toEqual(next)
    const plain = withPlaces(many, { ...next, take: '' }, 'lists:bed-1', 'lists:bed-7')
    expect(plain.to).toEqual({ system: 'ledger', collection: 'lists:bed-7' })
  })

  it('is what it was once it hears one place again', () => {
    const many = withPlaces(ONE, { ...NOTHING, how: 'named', ids: ['bed-1'] }, 'lists:bed-1', '')
    expect(withPlaces(many, NOTHING, 'lists:bed-1', 'lists:all')).toEqual({
      ...ONE,
      from: { system: 'boards', collection: 'lists:bed-1', event: ['created'], every: 'PT1M' },
    })
  })

  it('leaves no list of those that were left out where places are named', () => {
    const next: Said = { ...NOTHING, how: 'named', ids: ['bed-1'], leftOut: ['bed-2'] }
    expect(withPlaces(ONE, next, '', '').from).toMatchObject({
      places: { of: 'lists', named: ['bed-1'] },
    })
  })

  it('encodes ids as the server does', () => {
    expect(collectionOf('lists', 'a b/ü')).toBe('lists:a%20b%2F%C3%BC')
    expect(collectionOf('', 'forms')).toBe('forms')
    expect(groupOf('lists:a')).toBe('lists')
    expect(groupOf('forms')).toBe('')
  })
})
