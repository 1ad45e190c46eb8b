import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { refusal, serve } from '@/test/desk'
import PairsPage from './PairsPage.vue'
import type { Pair, Possible, Sides } from './api'

const push = vi.hoisted(() => vi.fn())
const query = vi.hoisted(() => ({ id: '' }))
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
  const calls = serve(answers)
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
  })

  it('shows both sides with what differs first and is answered by a key each', async () => {
    const { view } = await open({
      'GET /sides': sides,
      'GET /api/duplicates': page(possible(3), possible(2), possible(1)),
      'POST /api/duplicates/2/answer': page(possible(3), possible(1)),
    })
    expect(view.get('.heading').text()).toContain('3 possible duplicates')
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
      'GET /sides': sides,
      'GET /api/duplicates': page(possible(3), possible(1)),
      'POST /api/duplicates/2/answer': page(possible(3), possible(1)),
    })
    await second.trigger('keydown', { key: 's' })
    await flushPromises()
    expect(view.get('li button[aria-current="true"]').text()).toContain('brannch 1')
    expect(view.get('.heading').text()).toContain('2 possible duplicates')
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
      const body = url.includes('sides') ? sides : page(possible(1))
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
    expect(view.get('.heading').text()).toContain('1 possible duplicate')
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
