import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { serve } from '@/test/desk'
import FaultSwitches from './FaultSwitches.vue'

const faults = (calls: number) => [
  { kind: 'down', title: 'It is down', calls },
  { kind: 'field-renamed', title: 'A field is renamed', calls: 0 },
]

async function opened(calls: number) {
  const asked = serve({
    'GET /faults': faults(calls),
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
      field: '',
    })
    expect(view.text()).toContain('It is down, 3 calls more')
    expect(view.emitted('switched')).toHaveLength(1)
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
