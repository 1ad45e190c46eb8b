import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import '@/test/desk'
import BridgeTimes from './BridgeTimes.vue'

const api = vi.hoisted(() => ({ readTimes: vi.fn(), runTime: vi.fn() }))
vi.mock('./api', () => api)
useSession().zone.value = 'Europe/Lisbon'

const times = { zone: 'Pacific/Auckland', next: [], lately: [] }
const shown = async () => {
  const view = mount(BridgeTimes, {
    props: { id: 'call', target: 'Works Ledger' },
    global: { stubs: { RouterLink: { template: '<a><slot /></a>' }, teleport: true } },
  })
  await flushPromises()
  return view
}

beforeEach(() => {
  api.readTimes.mockReset().mockResolvedValue(times)
  api.runTime.mockReset()
})

describe('a time that is over', () => {
  it('is run as the clocks of its zone show it, after a look at what that means', async () => {
    api.runTime.mockResolvedValue({ trace: 't-1' })
    const view = await shown()
    await view.get('[aria-label="A time that is over"]').setValue('2026-11-27T09:00')
    await view.get('form').trigger('submit')
    expect(api.runTime).not.toHaveBeenCalled()
    expect(view.text()).toContain('2026-11-27 09:00 is made now')
    await view.findAll('button').at(-1)!.trigger('click')
    await flushPromises()
    // Nine in Auckland's summer is eight in the evening before at UTC.
    expect(api.runTime).toHaveBeenCalledWith('call', '2026-11-26T20:00:00.000Z')
    expect(view.get('[role=status]').text()).toContain('its trace')
    expect(api.readTimes).toHaveBeenCalledTimes(2)
  })

  it('says why it is none', async () => {
    api.runTime.mockRejectedValue(new Error('The rule of the bridge has no time then.'))
    const view = await shown()
    await view.get('[aria-label="A time that is over"]').setValue('2026-11-27T10:00')
    await view.get('form').trigger('submit')
    await view.findAll('button').at(-1)!.trigger('click')
    await flushPromises()
    expect(view.get('[role=alert]').text()).toBe('The rule of the bridge has no time then.')
  })
})
