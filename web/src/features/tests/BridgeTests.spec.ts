import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import '@/test/desk'
import { useSession } from '@/shared/composables/session'
import BridgeTests from './BridgeTests.vue'
import * as api from './api'
import type { EndedTest, TestPlan } from './api'

const { now, zone } = useSession()
zone.value = 'Europe/Lisbon'
now.value = new Date('2026-11-28T10:00:00Z')

const result = (passed: boolean, words: string): TestPlan['results'][number] => ({
  passed,
  words,
  version: 3,
  dueOn: '2026-11-20',
  testedAt: '2026-11-24T10:00:00Z',
  testedBy: 'engine',
})
const test = (id: number, part: Partial<TestPlan> = {}): TestPlan => ({
  id,
  what: `test ${id}`,
  how: 'BY_HAND',
  owner: '',
  everyDays: 30,
  rule: null,
  firstOn: '2026-11-20',
  dueOn: '2026-12-20',
  due: false,
  revision: 2,
  results: [],
  resultsInAll: 0,
  ...part,
})

async function shown(tests: TestPlan[], ended: EndedTest[] = []) {
  vi.spyOn(api, 'readEndedTests').mockResolvedValue(ended)
  vi.spyOn(api, 'readTests').mockResolvedValue(tests)
  const mounted = mount(BridgeTests, { props: { id: 'school-visit' }, attachTo: document.body })
  await flushPromises()
  return mounted
}
const named = (mounted: Awaited<ReturnType<typeof shown>>, name: string) =>
  mounted.findAll('button').find((one) => one.text() === name)!

describe('the tests of a bridge', () => {
  it('say when they are due, and how they went', async () => {
    const both = [result(false, 'It gives something else'), result(true, 'All hold')]
    const mounted = await shown([
      test(1, { due: true, dueOn: '2026-11-26', owner: 'Ida' }),
      test(2, { how: 'EXAMPLES', rule: 'every Monday', results: both, resultsInAll: 14 }),
    ])
    const [byHand, byItself] = mounted.findAll('li').map((li) => li.text())
    expect(byHand).toContain('due since 26 November 2026')
    expect(byHand).toContain('By hand, Ida; 30 days after the last time')
    expect(byHand).toContain('Never tested so far.')
    expect(byItself).toContain('due 20 December 2026')
    expect(byItself).toContain('By itself, with its pinned examples; every Monday')
    expect(byItself).toMatch(/Failed Tue,? 24 Nov.*by itself, version 3: It gives something else/)
    expect(byItself).toContain('13 earlier times')
    expect(byItself).toContain('12 more are kept.')
  })

  it('stay to be read once they ended', async () => {
    const mounted = await shown([test(2)])
    expect(mounted.text()).not.toContain('that ended')
    const end = vi.spyOn(api, 'endTest').mockResolvedValue(undefined)
    vi.spyOn(api, 'readTests').mockResolvedValue([])
    vi.spyOn(api, 'readEndedTests').mockResolvedValue([
      {
        id: 2,
        what: 'test 2',
        endedAt: '2026-11-28T09:00:00Z',
        results: [result(true, 'On the day')],
        resultsInAll: 1,
      },
    ])
    await named(mounted, 'Test it no more').trigger('click')
    await flushPromises()
    expect(end).toHaveBeenCalledWith('school-visit', 2, 2)
    const ended = mounted.find('details').text()
    expect(ended).toContain('1 test that ended')
    expect(ended).toMatch(/test 2\s*ended today 09:00/)
    expect(ended).toContain('On the day')
    await named(mounted, 'Plan it again…').trigger('click')
    expect(mounted.find<HTMLInputElement>('dialog input').element.value).toBe('test 2')
  })

  it('are planned by days or by a rule', async () => {
    const plan = vi.spyOn(api, 'planTest').mockResolvedValue([test(9, { what: 'A new one' })])
    const mounted = await shown([])
    expect(mounted.text()).toContain('No test is planned.')
    await named(mounted, 'Plan a test…').trigger('click')
    const [what] = mounted.findAll('dialog input')
    await what!.setValue('A mail without a date')
    await mounted.findAll('dialog select')[1]!.setValue('rule')
    const fields = mounted.findAll('dialog input')
    await fields[2]!.setValue('the first Monday of each month')
    await mounted.find('dialog form').trigger('submit')
    await flushPromises()
    expect(plan).toHaveBeenCalledWith('school-visit', {
      what: 'A mail without a date',
      how: 'BY_HAND',
      owner: '',
      everyDays: null,
      rule: 'the first Monday of each month',
      firstOn: '2026-11-28',
      basedOn: 0,
    })
    expect(mounted.text()).toContain('A new one')
  })

  it('are said to have failed with what went wrong', async () => {
    const say = vi.spyOn(api, 'sayTested').mockResolvedValue([test(1)])
    const mounted = await shown([test(1)])
    await named(mounted, 'Say how it went…').trigger('click')
    await mounted.find('input[value=no]').setValue(true)
    expect(named(mounted, 'Keep').attributes('disabled')).toBeDefined()
    await mounted.find('textarea').setValue('The date is a day early')
    await mounted.find('dialog form').trigger('submit')
    await flushPromises()
    expect(say).toHaveBeenCalledWith('school-visit', 1, false, 'The date is a day early')
  })
})
