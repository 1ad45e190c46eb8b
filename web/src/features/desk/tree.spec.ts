import { describe, expect, it } from 'vitest'
import {
  groupToLines,
  isOpen,
  linesToGroup,
  moved,
  ruleGroup,
  sourceKind,
  stepOf,
  stepParts,
  stepsOf,
  usedIn,
  withSource,
  withSteps,
  type Tree,
} from './tree'

describe('a rule', () => {
  it.each<[string, Tree | undefined, string]>([
    ['an address alone', '/submission', 'value'],
    ['a text with fields', { text: '{/a}' }, 'text'],
    ['several texts', { texts: ['a'] }, 'texts'],
    ['a fixed value', { always: 'reported' }, 'always'],
    ['cases', { cases: [] }, 'cases'],
    ['none yet', undefined, 'text'],
  ])('starts from what it says: %s', (_, rule, kind) => {
    expect(sourceKind(rule)).toBe(kind)
  })

  it('keeps its steps under another source', () => {
    const rule = { value: '/a', steps: ['trim'] }
    expect(withSource(rule, { text: 'x' })).toEqual({ text: 'x', steps: ['trim'] })
    expect(withSource('/a', { text: 'x' })).toEqual({ text: 'x' })
  })

  it('has no steps left when the last one goes', () => {
    expect(withSteps({ value: '/a', steps: ['trim'] }, [])).toEqual({ value: '/a' })
    expect(stepsOf(withSteps('/a', ['trim', { case: 'upper' }]))).toHaveLength(2)
  })

  it('of a new draft is open until something is written', () => {
    expect(isOpen(undefined)).toBe(true)
    expect(isOpen({ text: '' })).toBe(true)
    expect(isOpen({ text: '', steps: ['trim'] })).toBe(false)
    expect(isOpen('/a')).toBe(false)
    expect(ruleGroup(undefined)).toEqual({ text: '' })
  })
})

describe('a step', () => {
  const bare = (name: string) => ({ case: 'to', bands: 'bands' })[name]

  it.each<[Tree, string, Record<string, Tree>]>([
    ['trim', 'trim', {}],
    [{ case: 'upper' }, 'case', { to: 'upper' }],
    [{ 'look-up': { table: 'crews' } }, 'look-up', { table: 'crews' }],
    [{ bands: { '8..10': '1' } }, 'bands', { bands: { '8..10': '1' } }],
  ])('is taken apart and put together as it was: %j', (step, name, options) => {
    const parts = stepParts(step, bare)
    expect(parts).toEqual({ name, options })
    expect(stepOf(parts, bare(name))).toEqual(step)
  })

  it('loses an option that is emptied', () => {
    expect(stepOf({ name: 'look-up', options: { table: '' } }, undefined)).toBe('look-up')
  })

  it('moves within its list and no further', () => {
    expect(moved(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c'])
    expect(moved(['a', 'b', 'c'], 2, -2)).toEqual(['c', 'a', 'b'])
    const same = ['a', 'b']
    expect(moved(same, 1, 1)).toBe(same)
  })
})

describe('a group typed in lines', () => {
  it('comes back as it was', () => {
    const bands = { '8..10': '1', '5..<8': '3' }
    expect(linesToGroup(groupToLines(bands))).toEqual(bands)
  })

  it('splits a line at its last colon, and leaves out what is no pair', () => {
    expect(linesToGroup('12:00..13:00: noon\nnothing\n: none')).toEqual({ '12:00..13:00': 'noon' })
    expect(groupToLines('text')).toBe('')
  })
})

describe('where a field goes', () => {
  it('is found in whole values, in slots and in steps, under its name', () => {
    const fields = {
      title: { text: '{report/place}: {report/problem}' },
      due: { value: 'report/seenOn', steps: [{ 'look-up': { with: ['report/place'] } }] },
      lane: { always: 'report' },
    }
    const used = usedIn(fields, ['report/place', 'report/seenOn', 'report'], (key) =>
      key.toUpperCase(),
    )
    expect(used['report/place']!.map((one) => one.name)).toEqual(['TITLE', 'DUE'])
    expect(used['report/seenOn']!.map((one) => one.key)).toEqual(['due'])
    expect(usedIn(undefined, ['a'], String)).toEqual({})
  })
})
