import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { refusal, serve } from '@/test/desk'
import HoldControl from './HoldControl.vue'

const bridge = { id: 'b', name: 'Hazard report', heldSince: null, heldBecause: '' }
const HELD = { ...bridge, heldSince: '2026-11-24T10:00:00Z', heldBecause: 'Rebuilt' }

function control(of: typeof bridge | typeof HELD, answers: Record<string, unknown>) {
  const asked = serve(answers)
  const view = mount(HoldControl, {
    props: { bridge: of },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
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

  it('ends once a person saw what waits and what it would become', async () => {
    const row = {
      trace: 't1',
      bridge: 'Hazard report',
      receivedAt: '2026-11-24T10:00:00Z',
      was: '',
      because: '',
    }
    const { view, asked, act } = control(HELD, {
      'GET /foreseen?bridge=b': {
        foreseen: [
          {
            ...row,
            title: 'Loose plank',
            verdict: 'CREATE',
            fields: [{ name: 'Title', value: 'Plank' }],
          },
          {
            ...row,
            trace: 't2',
            title: 'Old',
            verdict: 'FAILED',
            because: 'No due day',
            fields: [],
          },
        ],
        inAll: 38,
      },
      'DELETE /bridges/b/hold': undefined,
    })
    await act('Release…').trigger('click')
    await flushPromises()
    expect(view.text()).toContain('Of the first 2 of 38 events, 1 would be created, 1 would fail.')
    expect(view.text()).toContain('Title: Plank')
    expect(view.text()).toContain('No due day')
    expect(asked.map((one) => one.key)).not.toContain('DELETE /bridges/b/hold')
    await act('Release it').trigger('click')
    await flushPromises()
    expect(asked.map((one) => one.key)).toContain('DELETE /bridges/b/hold')
    expect(view.emitted('changed')).toHaveLength(1)
  })
})
