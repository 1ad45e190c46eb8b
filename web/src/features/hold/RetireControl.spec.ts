import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { refusal, serve } from '@/test/desk'
import RetireControl from './RetireControl.vue'

const HELD = { id: 'b', name: 'Hazard report', heldSince: '2026-11-24T10:00:00Z', heldBecause: 'x' }

async function asking(answers: Record<string, unknown>) {
  const asked = serve(answers)
  const view = mount(RetireControl, { props: { bridge: HELD } })
  await view.get('button').trigger('click')
  await flushPromises()
  return { view, asked, act: () => view.get('button[type="submit"]') }
}

describe('retiring a bridge', () => {
  it('names the events that wait and says them back', async () => {
    const { view, asked } = await asking({
      'GET /bridges/b/retirement': { events: 12, deliveries: 0 },
      'POST /bridges/b/retirement': undefined,
    })
    expect(view.text()).toContain('12 events')
    await view.get('input').setValue('  The board is closed ')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(asked.at(-1)!.body).toEqual({ because: 'The board is closed', events: 12 })
    expect(view.emitted('retired')).toHaveLength(1)
  })

  it('is not offered while something is decided and not made', async () => {
    const { view, act } = await asking({
      'GET /bridges/b/retirement': { events: 0, deliveries: 1 },
    })
    await view.get('input').setValue('Closed')
    expect(view.text()).toContain('1 delivery is decided and not made yet')
    expect(act().attributes('disabled')).toBeDefined()
  })

  it('that is refused says why and keeps the reason typed', async () => {
    const { view } = await asking({
      'GET /bridges/b/retirement': { events: 1, deliveries: 0 },
      'POST /bridges/b/retirement': refusal('14 events wait by now.'),
    })
    await view.get('input').setValue('Closed')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(view.get('[role="alert"]').text()).toBe('14 events wait by now.')
    expect(view.get('input').element.value).toBe('Closed')
  })
})
