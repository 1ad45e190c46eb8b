import { describe, expect, it } from 'vitest'
import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { serve } from '@/test/desk'
import { useSession } from '@/shared/composables/session'
import MissingTime from './MissingTime.vue'
import type { Gap } from './api'

const gap: Gap = {
  id: 3,
  from: '2026-11-29T04:00:00Z',
  until: '2026-11-29T06:00:00Z',
  places: [
    { system: 'f', collection: 'p', name: 'Pledges, Friends Register', way: 'POLLED', read: true },
    { system: 'w', collection: 'j', name: 'Jobs, Works Ledger', way: 'POLLED', read: false },
    {
      system: 'v',
      collection: 'h',
      name: 'Hazard reports, Visitor Desk',
      way: 'TOLD',
      read: false,
    },
  ],
  checks: [{ bridge: 'both', name: 'Works board and ledger', begun: false }],
}

function shown(one: Gap) {
  useSession().zone.value = 'Europe/Lisbon'
  return mount(MissingTime, {
    props: { gap: one },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
}

describe('MissingTime', () => {
  it('says what is still to be read, what is checked, and what nobody tells again', () => {
    const text = shown(gap).text().replace(/\s+/g, ' ')
    expect(text).toContain('2 h are missing here')
    expect(text).toContain('1 of 2 places; still to be read: Jobs, Works Ledger')
    expect(text).toContain('is checked once all is read')
    expect(text).toContain('Hazard reports, Visitor Desk')
  })

  it('says that all is read', () => {
    const places = gap.places.map((place) => ({ ...place, read: true }))
    const text = shown({ ...gap, places }).text()
    expect(text).toContain('all 2 places')
  })

  it('is done with by a person', async () => {
    const asked = serve({ 'POST /gaps/3/seen': undefined })
    const view = shown(gap)
    await view.get('button').trigger('click')
    await flushPromises()
    expect(asked.map((call) => call.key)).toEqual(['POST /gaps/3/seen'])
    expect(view.emitted('seen')).toHaveLength(1)
  })
})
