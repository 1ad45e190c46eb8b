import { mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import NeedsYou from './NeedsYou.vue'
import type { Trouble } from '@/features/systems'
import type { BridgeLine } from './api'

useSession().zone.value = 'Europe/Lisbon'

const failed = {
  bridge: 'hazard-to-grounds',
  bridgeName: 'Hazard report',
  failure: 'MAPPING_ERROR' as const,
  kind: 'mapping error',
  traces: 3,
  oldest: '2026-11-24T10:00:00Z',
  text: 'Due: “yesterday” is no day.',
}

const line = {
  id: 'hazard-to-grounds',
  name: 'Hazard report',
  source: 'Visitor Desk',
  target: 'Grounds Board',
  counts: { made: 0, changed: 0, unchanged: 0, passedBy: 0, failed: 0 },
  bars: [],
  waiting: 4,
  waitingSince: null,
  worstMillis: null,
  lastEvent: null,
  heldSince: '2026-11-24T10:00:00Z',
  heldBecause: 'The board is being rebuilt',
} as unknown as BridgeLine

function page(items: (typeof failed)[], bridges: BridgeLine[] = [], wrong: Trouble[] = []) {
  return mount(NeedsYou, {
    props: { items, bridges, troubles: wrong },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
}

describe('what needs a person', () => {
  it('says what failed, why, and leads to just those traces', () => {
    const needs = page([failed])
    expect(needs.text()).toContain('Hazard report: 3 events failed, mapping error')
    expect(needs.text()).toContain('Due: “yesterday” is no day.')
    const link = needs.getComponent(RouterLinkStub)
    expect(link.text()).toBe('See 3 traces')
    expect(link.props('to')).toEqual({
      name: 'traces',
      query: { bridge: 'hazard-to-grounds', verdict: 'needs-you', span: '30d' },
    })
  })

  it('speaks of one trace as one', () => {
    const text = page([{ ...failed, traces: 1 }]).text()
    expect(text).toContain('1 event failed')
    expect(text).toContain('See the trace')
  })

  it('names a held bridge, why, and what waits behind it', () => {
    const text = page([], [line]).text()
    expect(text).toContain('Hazard report is held, 4 events wait')
    expect(text).toContain('The board is being rebuilt')
    expect(page([], [{ ...line, heldSince: null }]).text()).toContain('Nothing waits for a person.')
  })

  it('names a system that does not answer, with what to do', () => {
    const wrong = { system: 's', name: 'Friends Register', where: '', problem: 'Give it a token.' }
    const text = page([], [], [wrong]).text()
    expect(text).toContain('Friends Register does not answer as it should')
    expect(text).toContain('Give it a token.')
  })

  it('names a system that does not work, once, with what waits for it', () => {
    const wrong = { system: 's', name: 'Works Ledger', where: 'Jobs', problem: 'No answer.' }
    const outage = {
      system: 's',
      name: 'Works Ledger',
      since: '2026-11-24T10:00:00Z',
      nextProbe: '2026-11-24T10:05:00Z',
      waiting: 3000,
      text: 'Works Ledger answered 500.',
    }
    const needs = mount(NeedsYou, {
      props: { items: [], bridges: [], troubles: [wrong], outages: [outage] },
      global: { stubs: { RouterLink: RouterLinkStub } },
    })
    expect(needs.text()).toContain('Works Ledger does not work just now')
    expect(needs.text()).toContain('3,000 deliveries wait and go on by themselves')
    expect(needs.text()).toContain('It is called again at 10:05:00.')
    expect(needs.text()).not.toContain('No answer.')
  })

  it('names a bridge that cannot be used any more, with what waits', () => {
    const broken = { id: 'spare-parts', problem: 'There is no table “parts”.', waiting: 1 }
    const needs = mount(NeedsYou, {
      props: { items: [], bridges: [], troubles: [], broken: [broken] },
      global: { stubs: { RouterLink: RouterLinkStub } },
    })
    expect(needs.text()).toContain('spare-parts cannot be used any more, 1 event wait')
    expect(needs.text()).toContain('There is no table “parts”.')
  })

  it('says that all is calm, and where failures would show', () => {
    expect(page([]).text()).toContain('Nothing waits for a person.')
  })
})
