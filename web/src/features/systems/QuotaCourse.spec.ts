import { mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import QuotaCourse from './QuotaCourse.vue'
import type { Filling } from './api'

useSession().zone.value = 'Europe/Lisbon'

const filling = (part: Partial<Filling>): Filling => ({
  points: [
    { at: '2026-11-20T08:00:00Z', used: 100, most: 500 },
    { at: '2026-11-24T08:00:00Z', used: 260, most: 500 },
  ],
  since: '2026-11-20T08:00:00Z',
  perDay: 40,
  fullAt: '2026-11-30T08:00:00Z',
  fillers: [
    { bridge: 'hazard', name: 'Hazard report', made: 150 },
    { bridge: 'pledge', name: 'Pledge', made: 1 },
  ],
  ...part,
})
const view = (part: Partial<Filling> = {}) =>
  mount(QuotaCourse, {
    props: { filling: filling(part), of: 'open tasks' },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })

describe('how a quota fills', () => {
  it('names the day on which it is full, and who fills it', () => {
    const shown = view()
    expect(shown.get('b').text()).toBe(
      '40 more open tasks a day: full on 30 November 2026 at this pace.',
    )
    expect(shown.findAll('tbody tr').map((row) => row.get('.n').text())).toEqual([
      '150 tasks',
      '1 task',
    ])
    // What lies ahead is drawn from where it is to where it may be.
    const ahead = shown.get('line.ahead')
    expect(Number(ahead.attributes('x1'))).toBeLessThan(Number(ahead.attributes('x2')))
    expect(Number(ahead.attributes('y1'))).toBeGreaterThan(Number(ahead.attributes('y2')))
  })

  it('says it where it does not fill, empties, or is not known', () => {
    expect(view({ perDay: 0.01, fullAt: null }).get('b').text()).toContain('does not fill')
    expect(view({ perDay: -3.2, fullAt: null }).get('b').text()).toContain('empties by 3.2')
    const unknown = view({ perDay: null, fullAt: null, since: null })
    expect(unknown.get('b').text()).toContain('not looked at long enough')
    expect(unknown.find('line.ahead').exists()).toBe(false)
  })
})
