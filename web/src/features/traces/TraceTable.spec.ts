import { mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import TraceTable from './TraceTable.vue'
import type { TraceSummary } from './api'
import { useSession } from '@/shared/composables/session'

useSession().zone.value = 'Europe/Lisbon'

const trace: TraceSummary = {
  id: 'abc',
  bridge: 'hazard-to-grounds',
  place: '',
  bridgeName: 'Hazard report',
  version: 1,
  verdict: 'CREATE',
  title: 'Pond: Ice',
  record: 'vd-1',
  target: 'gb-1',
  failureKind: '',
  reason: '',
  tries: 1,
  receivedAt: '2026-11-20T10:00:00Z',
  millis: 41,
  resent: false,
  trial: false,
  takenBackAt: null,
}

function rows(traces: TraceSummary[]) {
  const table = mount(TraceTable, {
    props: { traces },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  return table.findAll('tbody tr').map((row) => row.text().replace(/\s+/g, ' '))
}

describe('a list of traces', () => {
  it('has verdicts as words, names before numbers and spans with units', () => {
    expect(rows([trace])[0]).toMatch(
      /^Fri 20 Nov 10:00:00 ?created ?Pond: Ice ?Hazard report ?vd-1 ?gb-1 ?41 ms$/,
    )
  })

  it('tells which try comes for what is under way', () => {
    const waiting: TraceSummary = {
      ...trace,
      verdict: 'WAITING',
      reason: 'Visitor Desk gave no answer.',
      tries: 3,
      millis: null,
      target: '',
    }
    const row = rows([waiting])[0]
    expect(row).toContain('under way')
    expect(row).toContain('Visitor Desk gave no answer. (3rd try to come)')
    expect(row).toMatch(/– ?–$/)
  })

  it('marks what was sent again since', () => {
    expect(rows([{ ...trace, verdict: 'FAILED', resent: true }])[0]).toContain('sent again since')
  })
})
