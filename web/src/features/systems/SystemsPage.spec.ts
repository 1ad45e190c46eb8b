import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import SystemsPage from './SystemsPage.vue'
import { troubles } from './troubles'
import type { PollView, SystemView } from './api'

const session = useSession()
session.zone.value = 'Europe/Lisbon'
session.now.value = new Date('2026-11-24T10:05:00Z')

const collection = (id: string, problem = '') => ({
  id,
  name: id,
  places: 0,
  can: ['is asked what changed', 'finds by id'],
  cannot: ['make a pledge', 'change one'],
  bridges: [{ id: 'b', name: 'Pledge follow-up' }],
  promise: '',
  lookedAt: '2026-11-24T10:00:00Z',
  problem,
  changes: [] as { field: string; text: string; bridges: { id: string; name: string }[] }[],
})
const system = (...collections: ReturnType<typeof collection>[]): SystemView => ({
  id: 'register',
  name: 'Friends Register',
  address: 'http://127.0.0.1:1',
  limitCalls: 90,
  limitSeconds: 60,
  usedCalls: 12,
  practice: false,
  quota: null,
  names: [],
  unreadNames: {},
  closedSeconds: 0,
  collections,
})
const poll = (problem = ''): PollView =>
  ({
    system: 'register',
    collection: 'pledges',
    everySeconds: 60,
    begunAt: '2026-11-24T09:00:00Z',
    askedAt: '2026-11-24T10:04:00Z',
    nextAt: '2026-11-24T10:06:00Z',
    reading: false,
    problem,
  }) as PollView

async function page(one: SystemView, polls: PollView[]) {
  const asked = serve({
    'GET /quota': { points: [], since: null, perDay: null, fullAt: null, fillers: [] },
    'GET /api/systems': [one],
    'GET /api/polls': polls,
    'POST /look': one,
    'POST /ask': undefined,
  })
  const view = mount(SystemsPage, { global: { stubs: { RouterLink: RouterLinkStub } } })
  await flushPromises()
  return { view, asked, text: () => view.text().replace(/\s+/g, ' ') }
}

describe('the systems', () => {
  it('say what can be done there, how often they are asked, and who uses them', async () => {
    const { text } = await page(system(collection('pledges')), [poll()])
    expect(text()).toContain('12 of 90 calls used in the last minute')
    expect(text()).toContain('is asked what changed, finds by id')
    expect(text()).toContain('cannot make a pledge, change one')
    expect(text()).toContain('asked every minute, answered 60 s ago')
    expect(text()).toContain('Pledge follow-up')
    expect(text()).toContain('as described')
  })

  it('are looked at and asked at once', async () => {
    const { view, asked } = await page(system(collection('pledges')), [poll()])
    await view.get('[aria-label="Look at Friends Register now"]').trigger('click')
    await flushPromises()
    await view.get('[aria-label="Ask pledges now"]').trigger('click')
    await flushPromises()
    expect(asked.map((one) => one.key)).toContain('POST /look')
    expect(asked.map((one) => one.key)).toContain('POST /ask')
  })

  it('take a file where their records come in files', async () => {
    const asked = serve({
      'GET /api/systems': [{ ...system(collection('orders')), address: 'drop:market' }],
      'GET /api/polls': [],
      'PUT /files': undefined,
    })
    const view = mount(SystemsPage, { global: { stubs: { RouterLink: RouterLinkStub } } })
    await flushPromises()
    const input = view.get('input[type=file]')
    Object.defineProperty(input.element, 'files', {
      value: [new File(['number\r\n7\r\n'], 'orders 1.csv')],
    })
    await input.trigger('change')
    await flushPromises()
    await flushPromises()
    expect(asked.map((one) => one.key)).toContain('PUT /files')
  })

  it('say when they asked for no more calls', async () => {
    const { text } = await page({ ...system(collection('pledges')), closedSeconds: 40 }, [])
    expect(text()).toContain('asked for no call, 40 s more')
  })

  it('say how full they are, and who nearly is', async () => {
    const quota = { of: 'open tasks', used: 412, most: 5000, nearlyFull: false, problem: '' }
    const roomy = { ...system(collection('pledges')), quota }
    const { text } = await page(roomy, [])
    expect(text()).toContain('412 of 5,000 open tasks')
    expect(troubles([roomy], [])).toEqual([])
    const nearly = { ...roomy, quota: { ...quota, used: 4800, nearlyFull: true } }
    expect(troubles([nearly], [])[0]).toMatchObject({
      name: 'Friends Register',
      problem: 'It is nearly full: 4,800 of 5,000 open tasks. Make room there.',
    })
  })

  it('name a field that changed and who reads it', async () => {
    const changed = collection('pledges')
    changed.changes.push({
      field: '/mail',
      text: 'No record has the field mail (/mail); perhaps it is called /email',
      bridges: [{ id: 'b', name: 'Pledge follow-up' }],
    })
    const { text } = await page(system(changed), [])
    expect(text()).toContain('perhaps it is called /email. Read by Pledge follow-up')
    expect(text()).not.toContain('as described')
    expect(troubles([system(changed)], [])[0]!.problem).toContain('perhaps it is called /email.')
  })

  it('name what is called otherwise or gone, with the rules that say it', async () => {
    const uses = [{ bridge: 'hazard', name: 'Hazard report', what: 'rule Lane' }]
    const since = '2026-11-24T10:00:00Z'
    const names = [
      { directory: 'lanes', key: 'a', name: 'In hand', was: 'Under way', since, uses },
      { directory: 'people', key: 'b', name: 'Rui', was: null, since, uses },
    ]
    const { text } = await page(
      { ...system(collection('pledges')), names, unreadNames: { labels: 'Not allowed.' } },
      [],
    )
    expect(text()).toContain('Under way is called In hand now')
    expect(text()).toContain('Rui is not there any more')
    expect(text()).toContain('rule Lane of Hazard report')
    expect(text()).toContain('The names of labels could not be read: Not allowed.')
  })

  it('name their trouble with its remedy', async () => {
    const { text } = await page(system(collection('pledges', 'Give it a valid token.')), [])
    expect(text()).toContain('Give it a valid token.')
    expect(text()).not.toContain('as described')
  })
})

describe('troubles', () => {
  it('are said once where one cause is behind all collections', () => {
    const down = 'It cannot be reached.'
    expect(troubles([system(collection('a', down), collection('b', down))], [])).toEqual([
      { system: 'register', name: 'Friends Register', where: '', problem: down },
    ])
  })

  it('are met while asking, too', () => {
    expect(troubles([system(collection('pledges'))], [poll('429')])[0]).toMatchObject({
      where: 'pledges',
      problem: '429',
    })
    expect(troubles([system(collection('pledges'))], [poll()])).toEqual([])
  })
})
