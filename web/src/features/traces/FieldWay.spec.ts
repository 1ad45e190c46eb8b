import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import FieldWayList from './FieldWay.vue'
import type { FieldWay } from './api'

const text = (value: string, type = 'text') => ({ text: value, type, problem: '' })

const due: FieldWay = {
  field: 'due',
  name: 'Due',
  sources: [
    {
      address: 'report/answers/seenOn',
      name: 'seen on',
      where: 'report',
      value: text('23 November 2026'),
    },
  ],
  start: text('23 November 2026'),
  steps: [
    { sentence: 'read as a day', value: text('2026-11-23', 'day') },
    { sentence: 'moved 7 days later', value: text('2026-11-30', 'day') },
  ],
  result: text('2026-11-30', 'day'),
  stored: '2026-11-30',
  names: {},
}

function lines(way: FieldWay, warnings: { message: string }[] = []) {
  const list = mount(FieldWayList, { props: { way, target: 'Grounds Board', warnings } })
  return list.findAll('li').map((li) => li.text().replace(/\s+/g, ' '))
}

describe('the way of a value', () => {
  it('leads from the source over each step to what the target keeps', () => {
    expect(lines(due)).toEqual([
      'seen on in the report "23 November 2026"',
      'read as a day 2026-11-23',
      'moved 7 days later 2026-11-30',
      'stored by Grounds Board 2026-11-30',
    ])
  })

  it('says once why there is no value', () => {
    const problem = { text: 'yesterday', type: '', problem: 'is no day' }
    const broken = {
      ...due,
      steps: [{ sentence: 'read as a day', value: problem }],
      result: problem,
      stored: '',
    }
    expect(lines(broken).filter((line) => line.includes('is no day'))).toHaveLength(1)
  })

  it('names people beside their keys', () => {
    const crew: FieldWay = {
      ...due,
      sources: [],
      steps: [],
      start: text('bu-11', 'list of person'),
      result: text('bu-11', 'list of person'),
      stored: 'bu-11',
      names: { 'bu-11': 'Paths crew' },
    }
    expect(lines(crew)).toEqual([
      'always the same Paths crew (bu-11)',
      'stored by Grounds Board Paths crew (bu-11)',
    ])
  })

  it('shows what is to be looked at', () => {
    expect(lines(due, [{ message: 'shortened' }]).at(-1)).toContain('shortened')
  })
})
