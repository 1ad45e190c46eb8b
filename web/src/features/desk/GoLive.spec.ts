import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { leavingField, serve, trialView } from '@/test/desk'
import GoLive from './GoLive.vue'

useSession().zone.value = 'Europe/Lisbon'

const cell = (text: string, live: string | null = null, odd = 'NO') => ({
  text,
  odd,
  why: '',
  live,
})
const row = (verdict: string, cells: object[], liveVerdict: string | null = null) => ({
  id: '1',
  record: 'vd-1',
  time: '2026-11-24T10:00:00Z',
  verdict,
  because: '',
  liveVerdict,
  cells,
})
const sheet = {
  columns: [
    { key: 'title', name: 'Title' },
    { key: 'due', name: 'Due' },
  ],
  rows: [
    row('create', [cell('a'), cell('new', 'old')]),
    row('create', [cell('b'), cell('new', 'old')]),
    row('failed', [cell(''), cell('')], 'create'),
    row('create', [cell('c'), cell('same')]),
  ],
  micros: 10,
}
const holding = {
  id: 'e1',
  name: 'The wobbling step',
  holds: true,
  verdict: 'create',
  differences: [],
}
const broken = {
  ...holding,
  holds: false,
  differences: [{ what: 'due', expected: 'reported', found: '2026-11-24T10:00:00Z' }],
}
const ceiling = (most: number) => ({
  perSeconds: 3600,
  limits: [{ kind: 'CREATE', most, busiest: null, busiestFrom: null, times: 7 }],
})
const going = {
  changes: [{ part: 'Due', before: 'a', after: 'b' }],
  events: 50,
  days: 2,
  examples: [holding],
  givenUpAfterSeconds: 540,
  asked: null,
  ceiling: ceiling(120),
  circles: [] as object[],
  loads: [
    {
      system: 'Grounds Board',
      callsPerDay: 45,
      callsOnBusiestDay: 82,
      busiestDay: '2026-11-24',
      limitCalls: 90,
      limitSeconds: 60,
      limitPerDay: 129600,
      longestWaitMillis: 0,
      longestWaitOf: null,
    },
  ],
}

const circle = (end: string) => ({
  sentence: 'What is in North of Yard goes by “There” to South of Yard and so comes back.',
  from: 'North of Yard',
  turns: [
    { bridge: 'there', name: 'There', effect: '', to: 'South of Yard' },
    { bridge: 'back', name: 'Back', effect: 'number-back', to: 'North of Yard' },
  ],
  end,
  because: ['Each turn makes a record.'],
})

async function dialog(look: object = going, trial = trialView(), liveVersion: number | null = 3) {
  const asked = serve({
    'POST /proof': sheet,
    'POST /going': look,
    'DELETE /examples/e1': undefined,
  })
  const view = mount(GoLive, {
    props: { id: 'b', text: '{}', trial, liveVersion, error: '' },
  })
  await flushPromises()
  const act = (text: string) => view.findAll('button').find((one) => one.text() === text)!
  const text = () => view.text().replace(/\s+/g, ' ')
  return { view, asked, act, text }
}

describe('before a bridge goes live', () => {
  it('the results that change are counted, by field', async () => {
    const { text } = await dialog()
    expect(text()).toContain('Put version 4 to work')
    expect(text()).toContain(
      'Of 4 events, 1 would fail, and 3 would come out other than with version 3: Due in 2.',
    )
  })

  it('its calls stand beside what the target allows, and new tasks beside the ceiling', async () => {
    const { text } = await dialog()
    expect(text()).toContain('Grounds Board: 45 calls a day, 82 on the busiest')
    expect(text()).toContain('it allows 90 in a minute, 129,600 a day; no event would have waited')
    expect(text()).toContain(
      'It would have come to at most 7 new tasks in an hour; the ceiling is 120.',
    )
    expect(text()).toContain('tried again for 9 min')
  })

  it('asking costs calls of its own, and a change waits for it', async () => {
    const asked = { system: 'Register', everySeconds: 60, callsPerDay: 1440, pushes: false }
    const { text } = await dialog({ ...going, asked })
    expect(text()).toContain('Register is asked every minute, which is 1,440 calls a day')
    expect((await dialog()).text()).toContain('Events are pushed')
  })

  it('a ceiling that would have been passed is said', async () => {
    const { text } = await dialog({ ...going, ceiling: ceiling(5) })
    expect(text()).toContain('the ceiling is 5 and would have been passed.')
  })

  it('an example that does not hold blocks it until its new result is expected', async () => {
    const trial = trialView({ leaving: [leavingField('due')] })
    const { view, act, text } = await dialog({ ...going, examples: [broken] }, trial)
    expect(text()).toContain('Due is “24 Nov 2026, 10:00”, expected “reported”')
    expect(act('Go live').attributes('disabled')).toBeDefined()
    await view.get('input[type="checkbox"]').setValue(true)
    await act('Go live').trigger('click')
    expect(view.emitted('go')).toEqual([[true, false]])
  })

  it('an example can be unpinned there', async () => {
    const { asked, act } = await dialog({ ...going, examples: [broken] })
    await act('Unpin').trigger('click')
    await flushPromises()
    expect(asked.map((one) => one.key)).toContain('DELETE /examples/e1')
  })

  it('a draft with faults is asked nothing and cannot go', async () => {
    const faulty = trialView({
      problems: [{ path: 'fields/due', message: 'A day is wanted.' }] as never,
    })
    const { asked, act, text } = await dialog(going, faulty)
    expect(asked).toHaveLength(0)
    expect(text()).toContain('It cannot go live yet:A day is wanted.')
    expect(act('Go live').attributes('disabled')).toBeDefined()
  })

  it('a new bridge is compared with nothing', async () => {
    const { text } = await dialog(going, trialView(), null)
    expect(text()).toContain('Put the bridge to work')
    expect(text()).not.toContain('Rules that change')
  })

  it('does not go live in a circle without an end, and asks for a yes where that cannot be told', async () => {
    const endless = await dialog({ ...going, circles: [circle('DOES_NOT_STOP')] })
    expect(endless.view.text()).toContain('It does not come to an end')
    expect(endless.view.text()).toContain('“Back”, then number back, writes to North of Yard')
    expect(endless.view.get('.btn.main').attributes('disabled')).toBeDefined()

    const untold = await dialog({ ...going, circles: [circle('CANNOT_BE_TOLD')] })
    expect(untold.view.get('.btn.main').attributes('disabled')).toBeDefined()
    await untold.view.get('input[type=checkbox]').setValue(true)
    await untold.view.get('.btn.main').trigger('click')
    expect(untold.view.emitted('go')).toEqual([[false, true]])

    const stops = await dialog({ ...going, circles: [circle('STOPS')] })
    expect(stops.view.get('.btn.main').attributes('disabled')).toBeUndefined()
  })
})
