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
  it('says what it means and sends just what the person saw', async () => {
    const asked = serve({ 'POST /resends': resend })
    const view = mount(SendAgain, { props: { incident }, attachTo: document.body })
    await view.get('button').trigger('click')
    expect(document.body.textContent).toContain('12 events would cross once more')
    const send = [...document.querySelectorAll('button')].find((one) =>
      one.textContent?.includes('Send 12 events again'),
    )!
    send.click()
    await flushPromises()
    expect(asked.length).toBe(1)
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
