import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import RecallPage from './RecallPage.vue'
import type { Recall, RecallCounts, RecallRecord } from './api'

useSession().zone.value = 'Europe/Lisbon'
vi.mock('vue-router', () => ({ useRouter: () => ({ back: vi.fn(), push: vi.fn() }) }))

const counts: RecallCounts = {
  chosen: 2,
  puts: 0,
  leftOut: 1,
  changed: 1,
  unseen: 0,
  underWay: 0,
  takenBack: 0,
  goneBefore: 0,
  stays: 0,
  failed: 0,
  named: 1,
  madeAgain: 0,
}
const recall: Recall = {
  id: 5,
  state: 'LISTED',
  bridges: [
    { id: 'a', name: 'Over' },
    { id: 'b', name: 'Back' },
  ],
  version: null,
  trace: '',
  incident: 7,
  from: '2026-11-24T10:00:00Z',
  until: '2026-11-24T11:00:00Z',
  askedBy: 'person',
  listedAt: '2026-11-24T11:00:00Z',
  begunAt: null,
  endedAt: null,
  counts,
  seconds: 21_240,
  secondsUnlooked: 10_620,
  slowest: 'Grounds Board',
  limitCalls: 90,
  limitSeconds: 60,
  looksAhead: true,
  problem: '',
}
const record = (delivery: number, part: Partial<RecallRecord> = {}): RecallRecord => ({
  delivery,
  title: `Task ${delivery}`,
  record: `gb-${delivery}`,
  where: 'North yard of Grounds Board',
  page: '',
  trace: 't1',
  bridge: 'Over',
  madeAt: '2026-11-24T10:30:00Z',
  changes: 0,
  way: 'TAKE_AWAY',
  puts: [],
  state: 'WAITING',
  looked: 'SAME',
  chosen: true,
  words: '',
  ...part,
})
const records = [
  record(3),
  record(2, { looked: 'CHANGED', chosen: false, words: 'Somebody changed it since' }),
  record(1, { state: 'NAMED', way: 'NAME', words: 'It was there before and was changed' }),
]

async function page(part: Partial<Recall> = {}, items = records) {
  const asked = serve({
    'GET /records': { items, next: null },
    'GET /recalls/5': { ...recall, ...part },
    'PUT /records/2': recall,
    'POST /start': recall,
    'POST /stop': recall,
    'POST /go-on': recall,
  })
  const view = mount(RecallPage, {
    props: { id: '5' },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  await flushPromises()
  return { view, asked }
}
const press = async (view: ReturnType<typeof mount>, words: string) => {
  await view
    .findAll('button')
    .find((one) => one.text().includes(words))!
    .trigger('click')
  await flushPromises()
}

describe('a recall', () => {
  it('is a list at first: what would go, what somebody changed, what can only be named', async () => {
    const { view, asked } = await page()
    const text = view.text()
    expect(text).toContain('What was made by “Over” and “Back”')
    expect(text).toContain('2 records would go.')
    expect(text).toContain('1 record that somebody changed since stays unless you tick it.')
    expect(text).toContain('1 record can only be named')
    expect(text).toContain('At what Grounds Board allows it takes 6 hours.')
    expect(
      view.findAll('input[type=checkbox]').map((box) => (box.element as HTMLInputElement).checked),
    ).toEqual([true, false])
    expect(text).toContain('It was there before and was changed')

    await view.findAll('input[type=checkbox]')[1]!.setValue(true)
    await flushPromises()
    expect(asked.find((one) => one.key === 'PUT /records/2')?.body).toEqual({ chosen: true })
  })

  it('asks once more before it begins, and says what not looking saves', async () => {
    const { view, asked } = await page()
    await press(view, 'Take back 2 records…')
    expect(view.get('dialog').text()).toContain('90 calls in a minute, so that it takes 6 hours')
    await view.get('dialog input').setValue(true)
    expect(view.get('dialog').text()).toContain('it takes 3 hours')
    await view.get('dialog .btn.main').trigger('click')
    await flushPromises()
    expect(asked.find((one) => one.key === 'POST /start')?.body).toEqual({
      records: 2,
      evenIfChanged: true,
    })
  })

  it('shows how far it is and can be stopped', async () => {
    const running = { ...counts, chosen: 1, underWay: 1, takenBack: 6, leftOut: 0 }
    const { view, asked } = await page({ state: 'RUNNING', counts: running })
    expect(view.text()).toContain('6 taken back. 2 left, 6 hours at what Grounds Board allows.')
    expect(view.get('progress').attributes('aria-label')).toBe('How far it is: 6 of 8')
    expect(view.find('input[type=checkbox]:not(:disabled)').exists()).toBe(false)
    await press(view, 'Stop')
    expect(asked.map((one) => one.key)).toContain('POST /stop')
  })

  it('tells in the end what became of each, and tries once more what failed', async () => {
    const ended = { ...counts, chosen: 0, leftOut: 0, takenBack: 1, stays: 1, failed: 1 }
    const { view, asked } = await page({ state: 'ENDED', counts: ended }, [
      record(3, { state: 'TAKEN_BACK' }),
      record(2, { state: 'TAKEN_BACK', way: 'CLOSE' }),
      record(1, { state: 'FAILED', words: 'Grounds Board does not allow it.' }),
    ])
    expect(view.text()).toContain(
      '1 taken back, 1 left, as somebody changed them, 1 could not be taken back.',
    )
    expect(view.findAll('.now').map((cell) => cell.text())).toEqual([
      'taken away',
      'closed',
      'Grounds Board does not allow it.',
    ])
    await press(view, 'Try the 1 once more')
    expect(asked.map((one) => one.key)).toContain('POST /go-on')
  })
})
