import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { refusal, serve } from '@/test/desk'
import PairsPage from './PairsPage.vue'
import type { Disagreement, Pair, Possible, Sides } from './api'

const push = vi.hoisted(() => vi.fn())
const query = vi.hoisted(() => ({ id: '', show: '' }))
vi.mock('vue-router', () => ({ useRoute: () => ({ query }), useRouter: () => ({ push }) }))

useSession().zone.value = 'Europe/Lisbon'

const possible = (id: number, part: Partial<Possible> = {}): Possible => ({
  id,
  bridge: 'hazard',
  bridgeName: 'Hazard report',
  place: 'Paths and trees, Grounds Board',
  title: `Elm Walk: brannch ${id}`,
  otherTitle: `Elm Walk: branch ${id}`,
  score: 0.954,
  reasons: ['One character of the title differs'],
  foundAt: '2026-11-24T10:00:00Z',
  trace: `t${id}`,
  waits: false,
  ...part,
})
const sides: Sides = {
  ours: { record: 'gb-2', page: '' },
  other: { record: 'gb-1', page: 'http://board/gb-1' },
  fields: [
    { name: 'Lane', ours: 'Reported', other: 'Reported', same: true },
    { name: 'Title', ours: 'brannch', other: 'branch', same: false },
  ],
  problem: '',
}
const page = (...items: Possible[]) => ({ items, open: items.length, unlooked: 0, next: null })

async function open(answers: Record<string, unknown>) {
  const calls = serve({
    'GET /api/disagreements': { items: [], open: 0 },
    'GET /api/kept-pairs': [],
    ...answers,
  })
  const view = mount(PairsPage, {
    attachTo: document.body,
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  await flushPromises()
  return { view, calls }
}

describe('pairs', () => {
  beforeEach(() => {
    document.body.innerHTML = ''
    query.id = ''
    query.show = ''
  })

  it('shows both sides with what differs first and is answered by a key each', async () => {
    const { view } = await open({
      'GET /sides': sides,
      'GET /api/duplicates': page(possible(3), possible(2), possible(1)),
      'POST /api/duplicates/2/answer': page(possible(3), possible(1)),
    })
    expect(view.get('.heading').text()).toContain('Possible duplicates 3')
    expect(view.findAll('tbody th').map((one) => one.text())).toEqual(['Title differs', 'Lane'])
    expect(view.findAll('li')[0]!.text()).toContain('95 % alike')

    const first = view.get('li button[aria-current="true"]')
    expect(first.text()).toContain('brannch 3')
    ;(first.element as HTMLElement).focus()
    await first.trigger('keydown', { key: 'ArrowDown' })
    await flushPromises()
    const second = view.get('li button[aria-current="true"]')
    expect(second.text()).toContain('brannch 2')
    expect(document.activeElement).toBe(second.element)

    serve({
      'GET /api/disagreements': { items: [], open: 0 },
      'GET /sides': sides,
      'GET /api/duplicates': page(possible(3), possible(1)),
      'POST /api/duplicates/2/answer': page(possible(3), possible(1)),
    })
    await second.trigger('keydown', { key: 's' })
    await flushPromises()
    expect(view.get('li button[aria-current="true"]').text()).toContain('brannch 1')
    expect(view.get('.heading').text()).toContain('Possible duplicates 2')
  })

  it('takes the next answer while one is under way, and sends them one after the other', async () => {
    const { view } = await open({
      'GET /sides': sides,
      'GET /api/duplicates': page(possible(3), possible(2), possible(1)),
    })
    const sent: string[] = []
    const held: (() => void)[] = []
    vi.stubGlobal('fetch', async (at: string | Request, init?: RequestInit) => {
      const url = typeof at === 'string' ? at : at.url
      const method = init?.method ?? (typeof at === 'string' ? 'GET' : at.method)
      if (method === 'POST') {
        sent.push(url.replace(/^.*duplicates\//, ''))
        await new Promise<void>((done) => held.push(done))
      }
      const body = url.includes('sides')
        ? sides
        : url.includes('disagreements')
          ? { items: [], open: 0 }
          : page(possible(1))
      return new Response(JSON.stringify(body), {
        headers: { 'Content-Type': 'application/json' },
      })
    })
    const press = async (key: string) => {
      await view.get('li button[aria-current="true"]').trigger('keydown', { key })
      await flushPromises()
    }
    await press('s')
    expect(view.get('li button[aria-current="true"]').text()).toContain('brannch 2')
    await press('d')
    expect(view.get('li button[aria-current="true"]').text()).toContain('brannch 1')
    expect(view.get('.heading').text()).toMatch(/Possible duplicates 1/)
    expect(sent).toEqual(['3/answer'])
    held[0]!()
    await flushPromises()
    expect(sent).toEqual(['3/answer', '2/answer'])
    held[1]!()
    await flushPromises()
    expect(view.findAll('li')).toHaveLength(1)
  })

  it('says what was refused and keeps the one that it was said of', async () => {
    const why = 'The task that was made is not there any more; there is nothing to join.'
    const { view } = await open({
      'GET /sides': { ...sides, problem: 'The other is done by now. ' },
      'GET /api/duplicates': page(possible(1)),
      'POST /api/duplicates/1/answer': refusal(why, 409),
    })
    expect(view.get('.note.bad').text()).toContain('done by now')
    await view
      .findAll('button')
      .find((one) => one.text().startsWith('The same'))!
      .trigger('click')
    await flushPromises()
    expect(view.get('[role="alert"]').text()).toBe(why)
    expect(view.findAll('li')).toHaveLength(1)
  })

  it('shows what both sides hold and held, and takes what is right by a key each', async () => {
    const side = (system: string, part: Partial<Disagreement['left']>) => ({
      place: `Works, ${system}`,
      system,
      record: 'gb-1',
      page: '',
      before: 'Mend the gate',
      now: 'Mend the gate',
      ...part,
    })
    const one = (id: number, part: Partial<Disagreement> = {}): Disagreement => ({
      id,
      bridge: 'works',
      bridgeName: 'Works both ways',
      title: `Gate ${id}`,
      field: 'Title',
      because: 'It was changed on both sides',
      since: '2026-11-24T10:00:00Z',
      trace: '',
      both: true,
      typed: true,
      left: side('Grounds Board', { now: 'Gate: new hinge' }),
      right: side('Works Ledger', { record: 'wl-1', now: 'Repair the gate' }),
      ...part,
    })
    const items = [one(1), one(2), one(3, { both: false })]
    const { view, calls } = await open({
      'GET /api/duplicates': page(),
      'GET /api/disagreements': { items, open: 3 },
      'POST /answer': { trace: 't9' },
    })
    expect(view.get('nav').text()).toContain('Both sides disagree 3')
    expect(view.findAll('tbody tr').map((row) => row.text())).toEqual([
      'Agreed beforeMend the gateMend the gate',
      'NowGate: new hingeRepair the gate',
      'This one LThis one R',
    ])
    const press = async (key: string) => {
      await view.get('li button[aria-current="true"]').trigger('keydown', { key })
      await flushPromises()
    }
    await press('l')
    await press('b')
    await press('b')
    expect(view.find('li').text()).toContain('Gate')
    await press('t')
    const text = view.get<HTMLTextAreaElement>('textarea')
    expect(text.element.value).toBe('Gate: new hinge')
    await text.setValue('Gate: hinge and latch')
    await text.trigger('keydown', { key: 'Enter', ctrlKey: true })
    await flushPromises()
    expect(calls.filter((call) => call.key === 'POST /answer').map((call) => call.body)).toEqual([
      { take: 'LEFT', text: '' },
      { take: 'BOTH', text: '' },
      { take: 'TYPED', text: 'Gate: hinge and latch' },
    ])
  })

  it('finds pairs by either id, and says what was looked for where there is none', async () => {
    query.id = 'vd-77'
    const pair: Pair = {
      bridge: 'hazard',
      bridgeName: 'Hazard report',
      from: 'Hazard reports, Visitor Desk',
      record: 'vd-77',
      to: 'Paths and trees, Grounds Board',
      task: 'gb-5',
      page: 'http://board/gb-5',
      matchKey: 'vd-77',
      madeAt: '2026-11-24T10:00:00Z',
      changedAt: '2026-11-24T10:00:00Z',
      fields: [{ name: 'Title', text: 'Elm Walk' }],
      stands: 'Its task was taken back',
    }
    const found = await open({ 'GET /api/pairs?id=vd-77': [pair], 'GET /api/duplicates': page() })
    expect(found.view.get('article').text()).toContain('gb-5')
    expect(found.view.get('article').text()).toContain('Its task was taken back')
    const none = await open({ 'GET /api/pairs?id=vd-77': [], 'GET /api/duplicates': page() })
    expect(none.view.get('.none').text()).toContain('“vd-77”')
  })
})
