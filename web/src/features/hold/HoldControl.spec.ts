import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { refusal, serve } from '@/test/desk'
import HoldControl from './HoldControl.vue'

const bridge = { id: 'b', name: 'Hazard report', heldSince: null, heldBecause: '' }
const HELD = { ...bridge, heldSince: '2026-11-24T10:00:00Z', heldBecause: 'Rebuilt' }

function control(of: typeof bridge | typeof HELD, answers: Record<string, unknown>) {
  const asked = serve(answers)
  const view = mount(HoldControl, { props: { bridge: of } })
  const act = (text: string) => view.findAll('button').find((one) => one.text() === text)!
  return { view, asked, act }
}

describe('holding a bridge', () => {
  it('needs a reason that others can read', async () => {
    const { view, asked, act } = control(bridge, { 'PUT /bridges/b/hold': {} })
    await act('Hold…').trigger('click')
    expect(act('Hold it').attributes('disabled')).toBeDefined()
    await view.get('input').setValue('  The board is rebuilt ')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(asked[0]!.body).toEqual({ because: 'The board is rebuilt' })
    expect(view.emitted('changed')).toHaveLength(1)
    expect(view.find('dialog').exists()).toBe(false)
  })

  it('that is refused says why and keeps the reason typed', async () => {
    const { view, act } = control(bridge, { 'PUT /bridges/b/hold': refusal('It is held already.') })
    await act('Hold…').trigger('click')
    await view.get('input').setValue('Rebuilt')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(view.get('[role="alert"]').text()).toBe('It is held already.')
    expect(view.get('input').element.value).toBe('Rebuilt')
  })

  it('ends with one press', async () => {
    const { view, asked, act } = control(HELD, { 'DELETE /bridges/b/hold': undefined })
    await act('Release').trigger('click')
    await flushPromises()
    expect(asked).toHaveLength(1)
    expect(view.emitted('changed')).toHaveLength(1)
  })
})
