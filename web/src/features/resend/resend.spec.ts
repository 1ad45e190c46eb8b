import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import ResendLines from './ResendLines.vue'
import SendAgain from './SendAgain.vue'
import type { Resend, Waiting } from './api'

useSession().zone.value = 'Europe/Lisbon'

const incident: Waiting = { id: 3, headline: 'Works Ledger is full', sendable: 12 }
const resend: Resend = {
  id: 7,
  incident: 3,
  title: 'Works Ledger is full',
  rules: 'LIVE',
  total: 12,
  sent: 5,
  failed: 0,
  underWay: 2,
  state: 'RUNNING',
  problem: '',
  begunAt: '2026-11-24T10:00:00Z',
  endedAt: null,
}

describe('sending again together', () => {
  const words = (text: string) =>
    [...document.querySelectorAll('button')].find((one) => one.textContent?.includes(text))!

  it('shows first what each would become and sends just what the person saw', async () => {
    const foreseen = {
      inAll: 13,
      sendable: 12,
      foreseen: [
        {
          trace: 't1',
          title: 'A bench',
          bridge: 'Jobs',
          receivedAt: '2026-11-24T09:00:00Z',
          was: 'FAILED',
          version: 2,
          reason: 'Works Ledger is full',
          left: '',
          verdict: 'CREATE',
          because: '',
          fields: [{ name: 'Title', value: 'A bench' }],
        },
        {
          trace: 't2',
          title: 'A gate',
          bridge: 'Jobs',
          receivedAt: '2026-11-24T09:00:00Z',
          was: 'FAILED',
          version: 2,
          reason: '',
          left: 'Nobody knows whether it was made.',
          verdict: null,
          because: '',
          fields: [],
        },
      ],
    }
    const asked = serve({
      'POST /resends': resend,
      'GET /foreseen?incident=3&rules=LIVE': foreseen,
      'GET /foreseen?incident=3&rules=AS_BEFORE': foreseen,
    })
    const view = mount(SendAgain, {
      props: { incident },
      attachTo: document.body,
      global: { stubs: { RouterLink: { template: '<a><slot /></a>' } } },
    })
    await view.get('button').trigger('click')
    await flushPromises()
    const text = document.body.textContent ?? ''
    expect(text).toContain('12 events would cross once more')
    expect(text).toContain('1 would be created, 1 left out')
    expect(text).toContain('by version 2: Works Ledger is full')
    expect(text).toContain('Left out: Nobody knows')
    document.querySelector<HTMLInputElement>('input[value="AS_BEFORE"]')!.click()
    await flushPromises()
    words('Send 12 events again').click()
    await flushPromises()
    expect(asked).toHaveLength(3)
    expect(asked.at(-1)?.body).toEqual({ incident: 3, traces: 12, rules: 'AS_BEFORE' })
    expect(view.emitted('begun')).toHaveLength(1)
    view.unmount()
  })

  it('shows how far it is and what came of it', () => {
    const text = (over: Partial<Resend>) =>
      mount(ResendLines, { props: { resends: [{ ...resend, ...over }] } }).text()
    expect(text({})).toContain('Works Ledger is full: 5 of 12 sent, 2 under way')
    expect(text({})).toContain('Stop')
    expect(text({ state: 'SENT', sent: 12, underWay: 0, failed: 1 })).toContain(
      'all 12 sent, 1 failed again',
    )
    expect(text({ state: 'STOPPED', underWay: 0 })).toContain(
      '5 of 12 sent, stopped, none failed again',
    )
    expect(text({ state: 'BROKEN', problem: 'The disk is full' })).toContain('The disk is full')
  })
})
