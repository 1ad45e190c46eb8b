import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import FullCheckPage from './FullCheckPage.vue'
import type { Found, FullCheck } from './api'

useSession().zone.value = 'Europe/Lisbon'
vi.mock('vue-router', () => ({ useRoute: () => ({ query: {} }) }))

const check: FullCheck = {
  id: 4,
  bridge: 'works',
  state: 'ENDED',
  askedBy: 'engine',
  begunAt: '2026-11-24T10:00:00Z',
  endedAt: '2026-11-24T10:01:00Z',
  pairs: 96,
  left: { place: 'Works, Grounds Board', system: 'Grounds Board', read: 98, lacks: '' },
  right: { place: 'Jobs, Works Ledger', system: 'Works Ledger', read: 140, lacks: '/labels' },
  aside: 44,
  toLook: 0,
  differ: 2,
  kinds: [
    { kind: 'NOT_CARRIED', found: 2, asked: 0, waiting: 0, putRight: 0, notPutRight: 0, left: 0 },
    { kind: 'NOT_MADE', found: 1, asked: 0, waiting: 0, putRight: 0, notPutRight: 0, left: 0 },
    { kind: 'APART', found: 1, asked: 1, waiting: 0, putRight: 0, notPutRight: 0, left: 0 },
  ],
  problem: '',
}
const one = (number: number, part: Partial<Found> = {}): Found => ({
  number,
  state: 'FOUND',
  kind: 'NOT_CARRIED',
  side: 'RIGHT',
  title: `Task ${number}`,
  left: { record: `gb-${number}`, page: '' },
  right: { record: `wl-${number}`, page: '' },
  fields: 'status, given-to',
  words: 'Works Ledger: Status “Done”',
  trace: '',
  ...part,
})
const found = [
  one(1),
  one(2, { state: 'PUT_RIGHT', trace: 't9' }),
  one(3, { kind: 'NOT_MADE', right: { record: '', page: '' }, fields: '' }),
  one(4, { kind: 'APART', state: 'ASKED', words: '' }),
]

async function page(checks: FullCheck[], items = found) {
  const asked = serve({
    'GET /differences': items,
    'GET /full-checks?bridge=works': {
      bridgeName: 'Works',
      left: 'Works, Grounds Board',
      right: 'Jobs, Works Ledger',
      checks,
    },
    'POST /repair': check,
    'POST /stop': check,
    'POST /part': check,
    'POST /leave': check,
    'POST /meet': { trace: 't7' },
    'POST /full-checks': check,
  })
  const view = mount(FullCheckPage, {
    props: { id: 'works' },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  await flushPromises()
  return { view, asked }
}
const button = (view: ReturnType<typeof mount>, words: string) =>
  view.findAll('button').find((each) => each.text().includes(words))
const press = async (view: ReturnType<typeof mount>, words: string) => {
  await button(view, words)!.trigger('click')
  await flushPromises()
}

describe('a full check', () => {
  it('says what was read, what was alike, and what a list does not tell', async () => {
    const { view } = await page([check])
    const text = view.text()
    expect(text).toContain('4 differences found')
    expect(text).toContain('94 of 96 pairs were alike.')
    expect(text).toContain('as the bridge says')
    expect(text).toContain('The list of Jobs, Works Ledger does not tell /labels')
    expect(text).toContain('1 of the differences waits on Pairs')
    expect(text).toContain('Not carried across: status, given to')
    expect(text).toContain('not made')
  })

  it('lets what is open be chosen, and puts that alone right', async () => {
    const { view, asked } = await page([check])
    const boxes = view.findAll('input[type=checkbox]')
    expect(boxes.map((box) => box.attributes('aria-label'))).toEqual([
      'Choose Task 1',
      'Choose Task 3',
    ])
    await boxes[1]!.setValue(true)
    await press(view, 'Put 1 right…')
    expect(view.text()).toContain('1 task made on the other side')
    expect(asked.some((call) => call.key === 'POST /repair')).toBe(false)
    await press(view, 'Put right')
    expect(asked.find((call) => call.key === 'POST /repair')!.body).toEqual({
      kinds: null,
      numbers: [3],
      leads: null,
    })
  })

  it('puts all that is open right by its kinds, and leaves what is asked on Pairs', async () => {
    const { view, asked } = await page([check])
    await press(view, 'Put all 3 right…')
    expect(view.text()).toContain('2 changes carried across')
    expect(view.text()).not.toContain('asked on Pairs1')
    await view.find('input[value=RIGHT]').setValue(true)
    expect(view.text()).toContain('Whatever differs is written over')
    await press(view, 'Put right')
    expect(asked.find((call) => call.key === 'POST /repair')!.body).toEqual({
      kinds: ['NOT_CARRIED', 'NOT_MADE'],
      numbers: null,
      leads: 'RIGHT',
    })
  })

  it('pairs two that may be the same only where that is said of them, and takes them for two', async () => {
    const met = one(5, {
      kind: 'MAY_BE_ONE',
      fields: 'title',
      words: 'One character of the title differs: “Task 5s”',
    })
    const kinds: FullCheck['kinds'] = [
      ...check.kinds,
      { kind: 'MAY_BE_ONE', found: 1, asked: 0, waiting: 0, putRight: 0, notPutRight: 0, left: 0 },
    ]
    const { view, asked } = await page([{ ...check, kinds }], [...found, met])
    expect(view.text()).toContain('Asked on Pairs: title')
    expect(button(view, 'Put all 3 right…')).toBeDefined()
    expect(button(view, 'They are two')).toBeUndefined()
    await view.find('input[aria-label="Choose Task 5"]').setValue(true)
    await press(view, 'They are two')
    expect(asked.find((call) => call.key === 'POST /part')!.body).toEqual({ numbers: [5] })
    await view.find('input[aria-label="Choose Task 5"]').setValue(true)
    await press(view, 'Put 1 right…')
    expect(view.text()).toContain('1 pair made of two tasks that are there')
  })

  it('leaves what is not made as it is, and tells how many are', async () => {
    const kinds = check.kinds.map((kind) =>
      kind.kind === 'NOT_MADE' ? { ...kind, found: 3, left: 2 } : kind,
    )
    const alone = one(6, { kind: 'NOT_MADE', state: 'LEFT', fields: '' })
    const { view, asked } = await page([{ ...check, kinds }], [...found, alone])
    expect(view.text()).toContain('2 tasks are left as they are.')
    expect(view.find('input[aria-label="Choose Task 6"]').exists()).toBe(false)
    expect(button(view, 'Leave')).toBeUndefined()
    await view.find('input[aria-label="Choose Task 3"]').setValue(true)
    await press(view, 'Leave it as it is')
    expect(asked.find((call) => call.key === 'POST /leave')!.body).toEqual({ numbers: [3] })
    await view.find('input[aria-label="Choose Task 1"]').setValue(true)
    await view.find('input[aria-label="Choose Task 3"]').setValue(true)
    expect(button(view, 'Leave')).toBeUndefined()
  })

  it('pairs two by their ids', async () => {
    const { view, asked } = await page([])
    const inputs = view.findAll('input[type=text]')
    await inputs[0]!.setValue(' gb-1 ')
    await inputs[1]!.setValue('wl-2')
    await view.find('form').trigger('submit')
    await flushPromises()
    expect(asked.find((call) => call.key === 'POST /meet')!.body).toEqual({
      left: 'gb-1',
      right: 'wl-2',
    })
    expect(view.text()).toContain('See what came of it')
  })

  it('says how far it is, and can be stopped', async () => {
    const reading: FullCheck = { ...check, state: 'READING_RIGHT', endedAt: null, kinds: [] }
    const { view, asked } = await page([reading], [])
    expect(view.text()).toContain('Reading Jobs, Works Ledger: 140 tasks so far')
    expect(button(view, 'Check both sides now')).toBeUndefined()
    await press(view, 'Stop')
    expect(asked.some((call) => call.key === 'POST /stop')).toBe(true)
  })

  it('says what it is for before the first, and begins one', async () => {
    const { view, asked } = await page([])
    expect(view.text()).toContain('Nothing was checked yet.')
    await press(view, 'Check both sides now')
    expect(asked.find((call) => call.key === 'POST /full-checks')!.body).toEqual({
      bridge: 'works',
    })
  })

  it('says why one broke off', async () => {
    const { view } = await page([{ ...check, state: 'FAILED', problem: 'It is down.' }], [])
    expect(view.find('.note.bad').text()).toContain('It is down.')
    expect(view.text()).toContain('Broke off')
  })
})
