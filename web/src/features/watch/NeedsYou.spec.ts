import { mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import NeedsYou from './NeedsYou.vue'
import type { Incident } from '@/features/incidents'
import type { Trouble } from '@/features/systems'
import type { TestLine } from '@/features/tests'
import type { BridgeLine } from './api'

useSession().zone.value = 'Europe/Lisbon'

const incident: Incident = {
  id: 7,
  headline: 'Works Ledger is full',
  sure: 'sure',
  because: 'It holds 4,998 of 5,000 open tasks (99 %).',
  state: 'OPEN',
  openedAt: '2026-11-24T10:00:00Z',
  cameBack: 0,
  waiting: 38,
  sendable: 38,
  goesOn: false,
  heldBridge: '',
  bridges: [
    { id: 'hazard-to-grounds', name: 'Hazard report' },
    { id: 'pledge-follow-up', name: 'Pledge' },
    { id: 'school-visit', name: 'School visit' },
  ],
  mendingSince: null,
  nextProbe: null,
  closedAt: null,
}

const line = {
  id: 'hazard-to-grounds',
  name: 'Hazard report',
  source: 'Visitor Desk',
  target: 'Grounds Board',
  counts: { made: 0, changed: 0, unchanged: 0, passedBy: 0, failed: 0 },
  bars: [],
  waiting: 4,
  waitingSince: null,
  worstMillis: null,
  lastEvent: null,
  heldSince: '2026-11-24T10:00:00Z',
  heldBecause: 'The board is being rebuilt',
} as unknown as BridgeLine

function page(incidents: Incident[], bridges: BridgeLine[] = [], wrong: Trouble[] = []) {
  return mount(NeedsYou, {
    props: { incidents, bridges, troubles: wrong },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
}

describe('what needs a person', () => {
  it('says what an incident is, how much waits where, and leads to it', () => {
    const needs = page([incident])
    expect(needs.text()).toContain(
      'Works Ledger is full: 38 events wait, at Hazard report and 2 other bridges',
    )
    expect(needs.text()).toContain('It holds 4,998 of 5,000 open tasks (99 %).')
    expect(needs.text()).toContain('Send again…')
    const link = needs
      .findAllComponents(RouterLinkStub)
      .find((one) => one.text() === 'See the incident')!
    expect(link.props('to')).toEqual({ name: 'incident', params: { id: 7 } })
  })

  it('says that somebody is at it, and that it came back', () => {
    const text = page([
      { ...incident, state: 'MENDING', mendingSince: '2026-11-24T10:00:00Z', cameBack: 2 },
    ]).text()
    expect(text).toContain('Being mended for')
    expect(text).toContain('It came back 2 times.')
  })

  it('names a held bridge, why, and what waits behind it', () => {
    const text = page([], [line]).text()
    expect(text).toContain('Hazard report is held, 4 events wait')
    expect(text).toContain('The board is being rebuilt')
    expect(page([], [{ ...line, heldSince: null }]).text()).toContain('Nothing waits for a person.')
  })

  it('names a system that does not answer, with what to do', () => {
    const wrong = { system: 's', name: 'Friends Register', where: '', problem: 'Give it a token.' }
    const text = page([], [], [wrong]).text()
    expect(text).toContain('Friends Register does not answer as it should')
    expect(text).toContain('Give it a token.')
  })

  it('says of a system that does not answer when it is called again', () => {
    const away: Incident = {
      ...incident,
      headline: 'Works Ledger does not answer',
      waiting: 3000,
      sendable: 0,
      goesOn: true,
      bridges: [],
      nextProbe: '2026-11-24T10:05:00Z',
    }
    const text = page([away]).text()
    expect(text).toContain('Works Ledger does not answer: 3,000 events wait')
    expect(text).toContain('It is called again at 10:05:00.')
    expect(text).toContain('What waits goes on by itself then.')
    expect(text).not.toContain('Send again')
  })

  it('says how many more there are than Watch lists', () => {
    const needs = mount(NeedsYou, {
      props: { incidents: [incident], inAll: 4, bridges: [], troubles: [] },
      global: { stubs: { RouterLink: RouterLinkStub } },
    })
    expect(needs.text()).toContain('3 incidents more')
    expect(page([incident]).text()).not.toContain('more, each')
  })

  it('says that nobody could be told', () => {
    const needs = mount(NeedsYou, {
      props: { incidents: [], bridges: [], troubles: [], untold: 'Garden Chat: no answer.' },
      global: { stubs: { RouterLink: RouterLinkStub } },
    })
    expect(needs.text()).toContain('Nobody could be told of incidents')
    expect(needs.text()).toContain('Garden Chat: no answer.')
  })

  it('tells of a bridge that holds itself once', () => {
    const text = page([{ ...incident, heldBridge: line.id, sendable: 0 }], [line]).text()
    expect(text).not.toContain('Hazard report is held')
  })

  it('names a bridge that cannot be used any more, with what waits', () => {
    const broken = { id: 'spare-parts', problem: 'There is no table “parts”.', waiting: 1 }
    const needs = mount(NeedsYou, {
      props: { incidents: [], bridges: [], troubles: [], broken: [broken] },
      global: { stubs: { RouterLink: RouterLinkStub } },
    })
    expect(needs.text()).toContain('spare-parts cannot be used any more, 1 event wait')
    expect(needs.text()).toContain('There is no table “parts”.')
  })

  it('names a calendar that runs out, and what of it does', () => {
    const line = { id: 'garden', name: 'Garden', last: '2026-12-31', bridges: ['Rounds'] }
    const needs = mount(NeedsYou, {
      props: {
        incidents: [],
        bridges: [],
        troubles: [],
        calendars: [
          { ...line, part: 'HOLIDAYS' as const },
          { ...line, id: 'works', name: 'Works', part: 'CLOSURES' as const },
          { ...line, id: 'shore', name: 'Shore', part: 'ALL' as const },
        ],
      },
      global: { stubs: { RouterLink: RouterLinkStub } },
    })
    expect(needs.text()).toContain('Garden names no holidays after 2026')
    expect(needs.text()).toContain('Works names no closures after 2026')
    expect(needs.text()).toContain('Shore is entered up to 31 December 2026')
  })

  it('says that all is calm, and where failures would show', () => {
    expect(page([]).text()).toContain('Nothing waits for a person.')
  })

  it('tells what a full check found, or that it broke off', () => {
    const line = { bridge: 'works', name: 'Works', begunAt: '2026-11-24T10:00:00Z' }
    const needs = mount(NeedsYou, {
      props: {
        incidents: [],
        bridges: [],
        troubles: [],
        checks: [
          { ...line, open: 3, problem: '' },
          { ...line, bridge: 'shores', name: 'Shores', open: 0, problem: 'It is down' },
        ],
      },
      global: { stubs: { RouterLink: RouterLinkStub } },
    })
    expect(needs.text()).toContain('3 differences between both sides of Works')
    expect(needs.text()).toContain('Shores: its full check broke off')
    expect(needs.findAllComponents(RouterLinkStub).map((link) => link.props('to'))).toContainEqual({
      name: 'full-check',
      params: { id: 'works' },
    })
  })

  it('tells of tests that are due or failed, and of many but the first', () => {
    const due: TestLine = {
      bridge: 'works',
      name: 'Works',
      what: 'A job without an owner',
      owner: 'Ida',
      dueOn: '2026-11-20',
      failedOn: null,
      words: '',
    }
    const failed: TestLine = {
      ...due,
      owner: '',
      dueOn: null,
      failedOn: '2026-11-21',
      words: 'A day early',
    }
    const shown = (tests: TestLine[]) =>
      mount(NeedsYou, {
        props: { incidents: [], bridges: [], troubles: [], tests },
        global: { stubs: { RouterLink: RouterLinkStub } },
      }).text()
    expect(shown([due])).toContain('the test “A job without an owner” is due Ida tests it.')
    expect(shown([due])).toContain('since 20 November 2026')
    expect(shown([failed])).toContain('failed on 21 November 2026 Nobody is said to test it.')
    expect(shown([failed])).toContain('A day early')
    expect(shown(Array.from({ length: 6 }, () => due))).toContain('1 test more is due or failed')
  })
})
