import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import FaultSwitches from './FaultSwitches.vue'

const off = { kind: 'field-renamed', title: 'A field is renamed', on: false, calls: 0, share: 100 }
const faults = (calls: number, more: object = {}) => [
  { kind: 'down', title: 'It is down', on: calls > 0, calls, until: null, share: 100, ...more },
  { ...off, until: null },
]

async function opened(calls: number, more: object = {}) {
  const asked = serve({
    'GET /faults': faults(calls, more),
    'POST /faults': faults(3),
    'DELETE /faults': faults(0),
  })
  const view = mount(FaultSwitches, { props: { id: 'ledger', name: 'Ledger' } })
  const details = view.get('details')
  ;(details.element as HTMLDetailsElement).open = true
  await details.trigger('toggle')
  await flushPromises()
  return { view, asked }
}

describe('faults', () => {
  it('are switched on for some calls and say how many are left', async () => {
    const { view, asked } = await opened(3)
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(asked.find((one) => one.key === 'POST /faults')?.body).toEqual({
      kind: 'down',
      calls: 3,
      minutes: 0,
      share: 0,
      field: '',
    })
    expect(view.text()).toContain('It is down, 3 calls more')
    expect(view.emitted('switched')).toHaveLength(1)
  })

  it('are switched on for some minutes or for a share of calls', async () => {
    const { view, asked } = await opened(0)
    await view.get('[type=number]').setValue(20)
    await view.get('[aria-label="For how long"]').setValue('share')
    await view.get('form').trigger('submit')
    await view.get('[aria-label="For how long"]').setValue('minutes')
    await view.get('form').trigger('submit')
    await flushPromises()
    const wishes = asked.filter((one) => one.key === 'POST /faults').map((one) => one.body)
    expect(wishes[0]).toMatchObject({ calls: 0, minutes: 0, share: 20 })
    expect(wishes[1]).toMatchObject({ calls: 0, minutes: 20, share: 0 })
  })

  it('say how long they last', async () => {
    useSession().zone.value = 'Europe/Lisbon'
    const until = '2026-11-24T14:05:00Z'
    const timed = await opened(1, { calls: 0, until })
    expect(timed.view.text()).toContain('It is down, until 14:05:00')
    const shared = await opened(1, { calls: 0, share: 20 })
    expect(shared.view.text()).toContain('It is down, 20 of 100 calls, until it is switched off')
  })

  it('ask what a renamed field is called then', async () => {
    const { view, asked } = await opened(0)
    expect(view.text()).toContain('none is on')
    await view.get('select').setValue('field-renamed')
    await view.get('[aria-label="The field"]').setValue('status')
    await view.get('[aria-label="What it is called then"]').setValue('state')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(asked.find((one) => one.key === 'POST /faults')?.body).toMatchObject({
      field: 'status:state',
    })
  })

  it('are all switched off', async () => {
    const { view, asked } = await opened(2)
    await view.findAll('button')[1]!.trigger('click')
    await flushPromises()
    expect(asked.map((one) => one.key)).toContain('DELETE /faults')
  })
})
