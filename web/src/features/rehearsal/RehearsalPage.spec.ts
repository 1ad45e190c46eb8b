import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import LastRehearsal from './LastRehearsal.vue'
import RehearsalPage from './RehearsalPage.vue'
import type { Difference, Rehearsal, Rehearsals } from './api'
import { fieldName, what } from './words'

const query = vi.hoisted(() => ({ rehearsal: '' }))
const replace = vi.hoisted(() => vi.fn())
vi.mock('vue-router', () => ({ useRoute: () => ({ query }), useRouter: () => ({ replace }) }))
useSession().zone.value = 'Europe/Lisbon'

const rehearsal = (part: Partial<Rehearsal> = {}): Rehearsal => ({
  id: 7,
  bridge: 'hazard',
  version: null,
  sameAsDraft: true,
  answers: 'OF_THEN',
  state: 'ENDED',
  total: 1200,
  done: 1200,
  differing: 41,
  tally: {
    verdicts: [
      { then: 'CREATE', now: 'CREATE', events: 1160 },
      { then: 'PASSED_BY', now: 'CREATE', events: 39 },
      { then: null, now: 'CREATE', events: 1 },
    ],
    fields: [{ field: 'title', events: 2 }],
  },
  since: null,
  until: null,
  firstAt: '2026-11-02T09:00:00Z',
  lastAt: '2026-11-28T17:00:00Z',
  problem: '',
  begunAt: '2026-11-29T09:00:00Z',
  endedAt: '2026-11-29T09:00:02Z',
  ...part,
})
const difference = (number: number, part: Partial<Difference> = {}): Difference => ({
  number,
  event: String(number),
  record: `vd-${number}`,
  receivedAt: '2026-11-20T10:00:00Z',
  trace: `t${number}`,
  title: `Elm Walk ${number}`,
  then: 'CREATE',
  now: 'CREATE',
  thenBecause: '',
  nowBecause: '',
  fields: [{ field: 'title', then: `Elm Walk ${number}`, now: '' }],
  ...part,
})
const all = (...rehearsals: Rehearsal[]): Rehearsals => ({
  bridgeName: 'Hazard report',
  hasDraft: true,
  liveVersion: 3,
  versions: [3, 2, 1],
  bothWays: false,
  fieldNames: { title: 'Title' },
  rehearsals,
})

async function open(of: Rehearsals, items: Difference[] = [], answers = {}) {
  const page = { items, next: null }
  const calls = serve({
    'GET then=PASSED_BY&now=CREATE': page,
    'GET unheard=true&now=CREATE': page,
    'GET field=title': page,
    'GET /api/rehearsals/': page,
    'GET /api/rehearsals?': of,
    ...answers,
  })
  const view = mount(RehearsalPage, {
    props: { id: 'hazard' },
    attachTo: document.body,
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  await flushPromises()
  return { view, calls }
}

describe('a rehearsal', () => {
  beforeEach(() => {
    document.body.innerHTML = ''
    replace.mockClear()
  })

  it('says how many come to what, and shows those of a change', async () => {
    const { view, calls } = await open(all(rehearsal()), [difference(1), difference(2)])
    expect(view.text()).toContain('The draft as it is, over 1,200 events')
    expect(view.text()).toContain('41 come to something else')
    expect(view.findAll('.matrix tbody th').map((one) => one.text())).toEqual([
      'new task',
      'passed by',
      'nothing known',
    ])
    await view.get('[aria-label="39: then passed by, now new task"]').trigger('click')
    await flushPromises()
    expect(calls.at(-1)!.key).toContain('then=PASSED_BY')
    await view.get('[aria-label="1: then nothing known, now new task"]').trigger('click')
    await flushPromises()
    expect(calls.at(-1)!.key).toContain('unheard')
    const field = view.get('[aria-label="2 in which Title is otherwise"]')
    await field.trigger('click')
    await flushPromises()
    expect(calls.at(-1)!.key).toContain('field')
    expect(field.attributes('aria-pressed')).toBe('true')
    await field.trigger('click')
    await flushPromises()
    expect(calls.at(-1)!.key).toBe('GET /api/rehearsals/')
  })

  it('opens a difference beside its trace, and goes on to the next by arrow keys', async () => {
    const { view } = await open(all(rehearsal()), [
      difference(1),
      difference(2, { now: 'FAILED', nowBecause: 'Due: no day', fields: [] }),
    ])
    const [first] = view.findAll('.line')
    await first!.trigger('click')
    expect(view.get('.both').text()).toContain('nothing')
    expect(view.get('.both').getComponent(RouterLinkStub).props('to')).toEqual({
      name: 'trace',
      params: { id: 't1' },
    })
    await first!.trigger('keydown', { key: 'ArrowDown' })
    await flushPromises()
    expect(view.findAll('.both')).toHaveLength(1)
    expect(view.get('.both').text()).toContain('Now: Due: no day.')
    expect(document.activeElement?.textContent).toContain('Elm Walk 2')
  })

  it('begins what is chosen', async () => {
    const { view, calls } = await open(all(), [], { 'POST /api/rehearsals': rehearsal({ id: 9 }) })
    expect(view.text()).toContain('Nothing was rehearsed yet')
    const [which, span, answers] = view.findAll('select')
    await which!.setValue('2')
    await span!.setValue('days')
    await answers!.setValue('OF_NOW')
    const [first, last] = view.findAll('input[type=date]')
    await first!.setValue('2026-11-02')
    await last!.setValue('2026-11-03')
    await view.get('form').trigger('submit')
    await flushPromises()
    const begun = calls.find((one) => one.key.startsWith('POST'))!
    expect(begun.body).toEqual({
      bridge: 'hazard',
      version: 2,
      answers: 'OF_NOW',
      since: '2026-11-02T00:00:00.000Z',
      until: '2026-11-04T00:00:00.000Z',
      most: null,
    })
    expect(replace).toHaveBeenCalledWith({ query: { rehearsal: 9 } })
  })

  it('tells how far it is, and can be stopped', async () => {
    const { view, calls } = await open(
      all(rehearsal({ state: 'RUNNING', done: 300, differing: 0, endedAt: null })),
      [],
      { 'POST /api/rehearsals/7/stop': rehearsal({ state: 'STOPPED' }) },
    )
    expect(view.get('.pill').text()).toBe('25 % through')
    expect(view.get('form button').attributes('disabled')).toBeDefined()
    await view
      .findAll('button')
      .find((one) => one.text() === 'Stop')!
      .trigger('click')
    await flushPromises()
    expect(calls.some((one) => one.key.endsWith('/7/stop'))).toBe(true)
  })

  it('is pointed to before the draft goes live', async () => {
    const shown = async (...rehearsals: Rehearsal[]) => {
      serve({ 'GET /api/rehearsals?': all(...rehearsals) })
      const view = mount(LastRehearsal, {
        props: { id: 'hazard' },
        global: { stubs: { RouterLink: RouterLinkStub } },
      })
      await flushPromises()
      return view.text()
    }
    expect(await shown(rehearsal({ version: 2 }), rehearsal())).toContain(
      'over 1,200 events that came before: 41 come to something else',
    )
    expect(await shown(rehearsal({ sameAsDraft: false }))).toContain('was not rehearsed')
  })

  it('has words for fields and for what was rehearsed', () => {
    expect(fieldName('title', { title: 'Title' })).toBe('Title')
    expect(fieldName('invite/title', { title: 'Title' })).toBe('Title (invite)')
    expect(fieldName('other', {})).toBe('other')
    expect(what({ version: null, sameAsDraft: false })).toBe('the draft as it was')
  })
})
