import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import IncidentPage from './IncidentPage.vue'
import type { IncidentStory } from './api'

useSession().zone.value = 'Europe/Lisbon'

const story: IncidentStory = {
  incident: {
    id: 7,
    headline: 'Our account may not do this at Works Ledger',
    sure: 'likely',
    because: 'It said “not allowed” to 3 events.',
    state: 'OPEN',
    openedAt: '2026-11-24T10:00:00Z',
    cameBack: 1,
    waiting: 3,
    sendable: 3,
    goesOn: false,
    heldBridge: '',
    bridges: [{ id: 'hazard', name: 'Hazard report' }],
    mendingSince: null,
    nextProbe: null,
    closedAt: null,
  },
  oneByOne: 0,
  findings: [
    {
      headline: 'Our account may not do this at Works Ledger',
      sure: 'likely',
      speaksFor: ['It said “not allowed” to 3 events.'],
      speaksAgainst: [],
      todo: 'Ask its administrator to give our account the right again.',
      proof: 'See over there what our account may do.',
    },
    {
      headline: 'Works Ledger is full',
      sure: 'possible',
      speaksFor: ['Only making something is refused.'],
      speaksAgainst: ['Nobody looked.'],
      todo: 'Make room.',
      proof: 'See over there how full it is.',
    },
  ],
  look: 'See over there what our account may do.',
  groups: [
    {
      kind: 'not allowed',
      effect: 'CREATE',
      where: 'jobs',
      field: '',
      code: '403',
      message: 'Works Ledger does not allow it.',
      failures: 3,
      records: 3,
      first: '2026-11-24T10:00:00Z',
      last: '2026-11-24T11:00:00Z',
      bridges: ['Hazard report'],
    },
  ],
  shares: [{ id: 'hazard', name: 'Hazard report', failed: 5, waiting: 3 }],
  lines: [
    { at: '2026-11-24T10:00:00Z', by: 'engine', text: 'Opened: it may not' },
    { at: '2026-11-24T10:20:00Z', by: 'person', text: 'Asked Rui' },
  ],
}

async function page(over: Partial<IncidentStory['incident']> = {}) {
  const answer = { ...story, incident: { ...story.incident, ...over } }
  const asked = serve({
    'GET /incidents/7': answer,
    'PUT /incidents/7/mending': answer,
    'POST /incidents/7/notes': answer,
    'POST /incidents/7/look': answer,
  })
  const view = mount(IncidentPage, {
    props: { id: '7' },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  await flushPromises()
  return { view, asked }
}

describe('an incident', () => {
  it('says why, what to do, and what would tell two causes apart', async () => {
    const { view } = await page()
    const text = view.text()
    expect(text).toContain('3 events wait, at Hazard report')
    expect(text).toContain('It came back once.')
    expect(text).toContain('Ask its administrator to give our account the right again.')
    expect(text).toContain('does not tell this from “Works Ledger is full”')
    expect(text).toContain('not allowed, 403')
    expect(text).toContain('making a task')
    expect(text).toContain('a person')
    expect(view.find('[aria-label="See the 3 that wait at Hazard report"]').exists()).toBe(true)
  })

  it('takes down who is at it, with what they write', async () => {
    const { view, asked } = await page()
    const button = (name: string) => view.findAll('button').find((one) => one.text() === name)!
    expect(button('Write it down').attributes('disabled')).toBeDefined()
    await view.get('textarea').setValue('Asked Rui again')
    await button('I am mending this').trigger('click')
    await flushPromises()
    const mended = asked.find((one) => one.key === 'PUT /incidents/7/mending')
    expect(mended?.body).toEqual({ text: 'Asked Rui again' })
    expect((view.get('textarea').element as HTMLTextAreaElement).value).toBe('')
  })

  it('only tells of one that is closed', async () => {
    const { view } = await page({ state: 'CLOSED', closedAt: '2026-11-24T12:00:00Z', sendable: 0 })
    expect(view.text()).toContain('Open from')
    expect(view.text()).not.toContain('Look again')
    expect(view.text()).not.toContain('I am mending this')
  })
})
