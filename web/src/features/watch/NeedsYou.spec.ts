import { mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import NeedsYou from './NeedsYou.vue'

useSession().zone.value = 'Europe/Lisbon'

const failed = {
  bridge: 'hazard-to-grounds',
  bridgeName: 'Hazard report',
  kind: 'mapping error',
  traces: 3,
  oldest: '2026-11-24T10:00:00Z',
  text: 'Due: “yesterday” is no day.',
}

function page(items: (typeof failed)[]) {
  return mount(NeedsYou, { props: { items }, global: { stubs: { RouterLink: RouterLinkStub } } })
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

  it('says that all is calm, and where failures would show', () => {
    expect(page([]).text()).toContain('Nothing waits for a person.')
  })
})
