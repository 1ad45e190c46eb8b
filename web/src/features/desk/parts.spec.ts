import { describe, expect, it } from 'vitest'
import { leavingField } from '@/test/desk'
import { likeliest, placesFor, put } from './parts'
import type { Part } from './shelf'

const part = (kind: Part['kind'], tree: unknown, name = 'Due'): Part => ({
  kind,
  name,
  of: 'Hazard report',
  tree,
})
const LEAVING = [leavingField('title'), leavingField('due', { ruled: false }), leavingField('lane')]
const DOC = { name: 'Other', fields: { title: '/a', lane: { always: 'x', steps: ['trim'] } } }

describe('parts of one bridge in another', () => {
  it('a rule goes into any field, likeliest into the one of its name', () => {
    const rule = part('rule', { value: '/b', steps: ['trim'] })
    const places = placesFor(rule, DOC, LEAVING)
    expect(places).toHaveLength(3)
    expect(likeliest(rule, places)).toBe('due')
    expect(put(rule, DOC, 'due').fields).toEqual({
      ...DOC.fields,
      due: { value: '/b', steps: ['trim'] },
    })
  })

  it('steps go behind those of a rule, an address alone becoming a group', () => {
    const steps = part('steps', [{ shorten: '90' }, 'trim'], 'of Title')
    expect(placesFor(steps, DOC, LEAVING).map((one) => one.key)).toEqual(['title', 'lane'])
    expect(put(steps, DOC, 'title').fields).toMatchObject({
      title: { value: '/a', steps: [{ shorten: '90' }, 'trim'] },
    })
    expect(put(steps, DOC, 'lane').fields).toMatchObject({
      lane: { always: 'x', steps: ['trim', { shorten: '90' }, 'trim'] },
    })
  })

  it.each([
    [undefined, { value: '/a', is: 'present' }],
    [
      { all: [{ value: '/z', is: 'empty' }] },
      {
        all: [
          { value: '/z', is: 'empty' },
          { value: '/a', is: 'present' },
        ],
      },
    ],
    [
      { any: [{ value: '/z', is: 'empty' }] },
      { all: [{ any: [{ value: '/z', is: 'empty' }] }, { value: '/a', is: 'present' }] },
    ],
  ])('a condition must hold beside %j', (when, both) => {
    const doc = when ? { ...DOC, when } : DOC
    expect(put(part('condition', { value: '/a', is: 'present' }), doc, '').when).toEqual(both)
  })

  it('a lookup and what comes then take a name that is free', () => {
    const lookup = part('lookup', { in: 'a/b', by: { id: '/id' } }, 'report')
    const once = put(lookup, DOC, '')
    expect(Object.keys(put(lookup, once, '').lookups!)).toEqual(['report', 'report-2'])
    expect(put(part('then', { to: 'record', fields: {} }, 'back'), DOC, '').then).toEqual({
      back: { to: 'record', fields: {} },
    })
  })
})
