import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import '@/test/desk'
import AddBy from './AddBy.vue'

const choices = [
  { key: 'read-day', words: 'read day', hint: 'a text as a day' },
  { key: 'day-in', words: 'day in', hint: 'the day of a moment' },
  { key: 'trim', words: 'trim', hint: 'white space' },
]
const box = () => mount(AddBy, { props: { label: 'Add a step', choices } })

describe('adding by typing', () => {
  it('filters by name and hint, what begins so first', async () => {
    const view = box()
    await view.get('input').setValue('day')
    expect(view.findAll('li b').map((one) => one.text())).toEqual(['day in', 'read day'])
    await view.get('input').setValue('white')
    expect(view.findAll('li b').map((one) => one.text())).toEqual(['trim'])
  })

  it('adds with Enter what the arrows chose, and is empty again', async () => {
    const view = box()
    const input = view.get('input')
    await input.trigger('focus')
    await input.trigger('keydown.down')
    expect(view.get('[aria-selected="true"] b').text()).toBe('day in')
    expect(input.attributes('aria-activedescendant')).toBe(view.findAll('li')[1]!.attributes('id'))
    await input.trigger('keydown.enter')
    expect(view.emitted('add')).toEqual([['day-in']])
    expect(input.attributes('aria-expanded')).toBe('false')
  })

  it('says when nothing fits, and adds nothing then', async () => {
    const view = box()
    await view.get('input').setValue('zzz')
    await view.get('input').trigger('keydown.enter')
    expect(view.text()).toContain('Nothing is called that.')
    expect(view.emitted('add')).toBeUndefined()
  })
})
