import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { arriving, language } from '@/test/desk'
import ConditionEditor from './ConditionEditor.vue'
import type { TestView } from './api'
import type { Group, Tree } from './tree'

const results = [
  { sentence: 'place is given', value: 'Palm walk', met: true, passed: 3, asked: 3 },
  { sentence: 'how dangerous is at least 5', value: '4', met: false, passed: 1, asked: 3 },
] as TestView[]

const TWO: { all: Group[] } = {
  all: [
    { value: 'report/place', is: 'present' },
    { value: 'report/danger', steps: ['read-number'], 'at-least': '5' },
  ],
}

function editor(when: Tree | undefined) {
  const view = mount(ConditionEditor, { props: { when, arriving, results, language } })
  const last = () => view.emitted('change')!.at(-1)![0]
  return { view, last }
}

describe('the condition', () => {
  it('says of each test whether it is met, and by how many events', () => {
    const text = editor(TWO).view.text()
    expect(text).toContain('met3 of 3 events')
    expect(text).toContain('not met by “4”')
    expect(text).toContain('1 of 3 events')
  })

  it('reads a text as a number by itself once it is compared as one', async () => {
    const { view, last } = editor({ value: 'report/danger', is: 'present' })
    await view.get('[aria-label="How it is tested"]').setValue('at-least')
    expect(last()).toEqual({
      all: [{ value: 'report/danger', steps: ['read-number'], 'at-least': '' }],
    })
  })

  it('needs no such step for a number, and drops it for another test', async () => {
    const number = editor({ value: 'report/guests', is: 'present' })
    await number.view.get('[aria-label="How it is tested"]').setValue('at-least')
    expect(number.last()).toEqual({ all: [{ value: 'report/guests', 'at-least': '' }] })

    const back = editor(TWO)
    await back.view.findAll('[aria-label="How it is tested"]')[1]!.setValue('equal')
    expect((back.last() as unknown as typeof TWO).all[1]).toEqual({
      value: 'report/danger',
      equal: '5',
    })
  })

  it('asks what something changed to, or whether it changed at all', async () => {
    const { view, last } = editor({ value: 'report/place', changed: { to: 'done' } })
    const to = view.get('[aria-label="To what"]')
    expect((to.element as HTMLInputElement).value).toBe('done')
    await to.setValue('')
    await to.trigger('change')
    expect(last()).toEqual({ all: [{ value: 'report/place', changed: 'true' }] })
    await to.setValue('{"from": "open", "to": "done"}')
    await to.trigger('change')
    expect(last()).toEqual({
      all: [{ value: 'report/place', changed: { from: 'open', to: 'done' } }],
    })
    await view.get('[aria-label="How it is tested"]').setValue('is')
    expect(last()).toEqual({ all: [{ value: 'report/place', is: 'present' }] })
  })

  it('can hold when one of its tests does', async () => {
    const { view, last } = editor(TWO)
    await view.get('[aria-label="How many must hold"]').setValue('any')
    expect(last()).toEqual({ any: TWO.all })
  })

  it('is gone with its last test', async () => {
    const { view, last } = editor({ all: [TWO.all[0]!] })
    await view
      .findAll('button')
      .find((one) => one.text() === 'Remove')!
      .trigger('click')
    expect(last()).toBeUndefined()
  })

  it('takes a list typed as one', async () => {
    const { view, last } = editor({ value: 'report/place', equal: 'x' })
    await view.get('input[aria-label="With what"]').setValue('["a", "b"]')
    expect(last()).toEqual({ all: [{ value: 'report/place', equal: ['a', 'b'] }] })
  })

  it('leaves parts within parts to the document, and says so', () => {
    const { view } = editor({ all: [{ any: [] }] })
    expect(view.text()).toContain('edited in the document')
    expect(view.findAll('select')).toHaveLength(0)
  })
})
