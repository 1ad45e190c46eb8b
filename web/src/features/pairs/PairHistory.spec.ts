import { RouterLinkStub, flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { serve } from '@/test/desk'
import { useSession } from '@/shared/composables/session'
import PairHistory from './PairHistory.vue'
import type { KeptPair, StepOfField } from './api'

useSession().zone.value = 'Europe/Lisbon'

const pair = {
  bridge: 'works',
  key: 'k1',
  left: { place: 'Works, Grounds Board', system: 'Grounds Board' },
  right: { place: 'Jobs, Works Ledger', system: 'Works Ledger' },
} as KeptPair

const none = { before: '', after: '' }
const field = (part: Partial<StepOfField>): StepOfField => ({
  field: 'Title',
  kind: 'CARRIED',
  on: 'left',
  left: none,
  right: none,
  because: '',
  ...part,
})
const step = (id: number, fields: StepOfField[], part = {}) => ({
  id,
  at: '2026-11-24T10:00:00Z',
  trace: `t${id}`,
  askedBy: '',
  fields,
  ...part,
})

async function history(steps: unknown[], before: number | null = null) {
  serve({
    'GET ?before=9': { steps: [step(3, [field({})])], before: null },
    'GET /steps': { steps, before },
  })
  const view = mount(PairHistory, {
    props: { pair },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  await flushPromises()
  const lines = () => view.findAll('ul > li').map((one) => one.text().replace(/\s+/g, ' '))
  return { view, lines }
}

describe('what became of a pair', () => {
  it('says of each field where it changed, from what to what, and what came of it', async () => {
    const { lines } = await history([
      step(2, [
        field({
          left: { before: 'Mend', after: 'Mend it' },
          right: { before: 'Mend', after: 'Mend it' },
        }),
        field({
          field: 'Part of',
          kind: 'WAITS',
          left: { before: '', after: 'gb-7' },
          because: '“gb-7” is not on the other side',
        }),
      ]),
      step(1, [field({ field: '', kind: 'MADE', on: 'right' })]),
    ])
    expect(lines()).toEqual([
      'Titlechanged at Grounds Board, went to Works LedgerMend → Mend itMend → Mend it',
      'Part ofchanged at Grounds Board, waits: “gb-7” is not on the other sidenothing → gb-7nothing',
      'made at Works Ledger',
    ])
  })

  it('leads to each trace that is kept, and says who asked for it', async () => {
    const { view } = await history([
      step(2, [field({})], { askedBy: 'person' }),
      step(1, [field({})], { trace: '' }),
    ])
    const links = view.findAllComponents(RouterLinkStub)
    expect(links.map((link) => link.props('to'))).toEqual([{ name: 'trace', params: { id: 't2' } }])
    expect(view.text()).toContain('asked for by person')
  })

  it('reads older ones when it is asked to, and says where there are none', async () => {
    const { view, lines } = await history([step(9, [field({})])], 9)
    await view.get('button').trigger('click')
    await flushPromises()
    expect(lines()).toHaveLength(2)
    expect(view.find('button').exists()).toBe(false)
    const empty = await history([])
    expect(empty.view.text()).toContain('Nothing is kept')
  })
})
