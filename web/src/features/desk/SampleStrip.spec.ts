import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { sample } from '@/test/desk'
import SampleStrip from './SampleStrip.vue'

useSession().zone.value = 'Europe/Lisbon'

const samples = [sample('1', { origin: 'ADDED' }), sample('2'), sample('3', { origin: 'READ' })]
const strip = (inView = 0, waiting = false) =>
  mount(SampleStrip, {
    props: { samples, inView, waiting, sourceProblem: '' },
    attachTo: document.body,
  })

describe('the strip of events', () => {
  it('is stepped through by the arrows and stops at its ends', async () => {
    const view = strip(1)
    const list = view.get('[role="listbox"]')
    await list.trigger('keydown', { key: 'ArrowRight' })
    await list.trigger('keydown', { key: 'ArrowLeft' })
    expect(view.emitted('show')).toEqual([['3'], ['1']])
    const last = strip(2)
    await last.get('[role="listbox"]').trigger('keydown', { key: 'ArrowRight' })
    expect(last.emitted('show')!.at(-1)).toEqual(['3'])
  })

  it('is one stop of the keyboard, at the event in view', () => {
    expect(
      strip(1)
        .findAll('[role="option"]')
        .map((one) => one.attributes('tabindex')),
    ).toEqual(['-1', '0', '-1'])
  })

  it('says where an event comes from, and removes only what a person added', async () => {
    const view = strip(0)
    expect(view.text()).toContain('added')
    expect(view.text()).toContain('read at the source')
    await view
      .findAll('button')
      .find((one) => one.text() === 'Remove')!
      .trigger('click')
    expect(view.emitted('remove')).toEqual([['1']])
    expect(strip(1).text()).not.toContain('Remove')
  })

  it('shows that it waits', () => {
    const button = strip(0, true).get('[aria-pressed]')
    expect(button.text()).toBe('Waiting for the next')
    expect(button.attributes('aria-pressed')).toBe('true')
  })
})
