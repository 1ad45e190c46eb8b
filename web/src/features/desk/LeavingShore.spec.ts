import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { leavingField, trialView } from '@/test/desk'
import LeavingShore from './LeavingShore.vue'
import type { TrialView } from './api'

useSession().zone.value = 'Europe/Lisbon'

function shore(part: Partial<TrialView>) {
  const view = mount(LeavingShore, { props: { trial: trialView(part), open: 'due', pinned: '' } })
  const act = (text: string) => view.findAll('button').find((one) => one.text() === text)!
  return { view, act }
}

describe('what leaves', () => {
  it.each([
    ['create', 1, 'A task would be made'],
    ['create', 6, '6 tasks would be made'],
    ['update', 1, 'A task would be changed'],
    ['passed by', 0, 'It would be passed by'],
    ['failed', 0, 'It would fail'],
  ])('says the verdict in words: %s, %d', (verdict, tasks, words) => {
    expect(shore({ verdict, tasks }).view.get('.verdict').text()).toBe(words)
  })

  it('shows each value as people read it, and leads to its rule', async () => {
    const { view } = shore({
      leaving: [
        leavingField('title', { shown: 'Palm walk' }),
        leavingField('due', { shown: '2026-11-30T17:00:00Z', warnings: ['another day there'] }),
        leavingField('lane', { problem: 'It is required.', required: true, ruled: false }),
        leavingField('notes'),
        leavingField('colour', { ruled: false }),
      ],
    })
    expect(view.findAll('dt').map((one) => one.text())).toEqual(['Title', 'Due', 'Lane', 'Notes'])
    const values = view.findAll('dd').map((one) => one.text().replace(/\s+/g, ' '))
    expect(values[1]).toContain('30 Nov 2026, 17:00')
    expect(values[1]).toContain('! another day there')
    expect(values[2]).toBe('✕ It is required.')
    expect(values[3]).toBe('empty')
    await view.findAll('.to')[1]!.trigger('click')
    expect(view.emitted('show')).toEqual([['due']])
    expect(view.findAll('.to')[1]!.classes()).toContain('on')
  })

  it('pins the result under a name', async () => {
    const { view, act } = shore({})
    await act('Pin this result…').trigger('click')
    await view.get('form input').setValue('The wobbling step')
    await view.get('form').trigger('submit')
    expect(view.emitted('pin')).toEqual([['The wobbling step']])
    expect(view.find('form').exists()).toBe(false)
  })

  it('tries nothing that has a fault or makes no task', () => {
    const faulty = shore({ problems: [{ path: 'fields/due', message: 'x' }] as never })
    expect(faulty.act('Try it for real…').attributes('disabled')).toBeDefined()
    expect(faulty.act('Pin this result…').attributes('disabled')).toBeDefined()
    const passed = shore({ verdict: 'passed by' })
    expect(passed.act('Try it for real…').attributes('disabled')).toBeDefined()
    expect(shore({}).act('Try it for real…').attributes('disabled')).toBeUndefined()
  })

  it('has nothing to pin while no event is there', () => {
    expect(shore({ samples: [], verdict: '' }).view.text()).toContain('No event is in view yet.')
    expect(shore({ samples: [] }).view.findAll('.acts')).toHaveLength(0)
  })
})
