import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import '@/test/desk'
import DeskBar from './DeskBar.vue'

const props = {
  name: 'Hazard report',
  liveVersion: 3 as number | null,
  state: 'kept' as const,
  changed: true,
  canUndo: false,
  canRedo: true,
  proof: false,
  ready: true,
}
function bar(part: object = {}) {
  const view = mount(DeskBar, { props: { ...props, ...part } })
  const act = (text: string) => view.findAll('button').find((one) => one.text() === text)
  return { view, act }
}

describe('the bar of the desk', () => {
  it.each([
    [{ liveVersion: null }, 'draft, not live yet'],
    [{}, 'draft over version 3'],
    [{ changed: false }, 'as live, version 3'],
  ])('says how the draft stands beside the live version: %j', (part, words) => {
    expect(bar(part).view.get('.pill').text()).toBe(words)
  })

  it('lets go live what differs, and what was never live', () => {
    const off = (part: object) => bar(part).act('Go live…')!.attributes('disabled') !== undefined
    expect(off({})).toBe(false)
    expect(off({ liveVersion: null, changed: false })).toBe(false)
    expect(off({ changed: false })).toBe(true)
    expect(off({ ready: false })).toBe(true)
    expect(bar({ changed: false }).act('Go live…')!.attributes('title')).toBe(
      'Nothing is changed yet',
    )
  })

  it('offers both ways out of a conflict, and only then', async () => {
    expect(bar().act('Take theirs')).toBeUndefined()
    const { view, act } = bar({ state: 'conflict' })
    expect(view.get('[role="status"]').text()).toBe('Changed by someone else')
    await act('Take theirs')!.trigger('click')
    await act('Copy mine')!.trigger('click')
    expect(Object.keys(view.emitted())).toEqual(expect.arrayContaining(['theirs', 'copy']))
  })

  it('undoes and redoes only what there is', () => {
    const { act } = bar()
    expect(act('Undo')!.attributes('disabled')).toBeDefined()
    expect(act('Redo')!.attributes('disabled')).toBeUndefined()
  })
})
