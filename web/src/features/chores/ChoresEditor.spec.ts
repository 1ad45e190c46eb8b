import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import ChoresEditor from './ChoresEditor.vue'
import type { RowsView } from './api'
import { useSession } from '@/shared/composables/session'
import type { Group } from '@/shared/tree'

useSession().zone.value = 'Europe/Lisbon'

const previewRows = vi.hoisted(() => vi.fn())
vi.mock('./api', () => ({ previewRows }))

const cells = [
  { address: '/cells/round', name: 'round', type: 'text' },
  { address: '/cells/repeat', name: 'repeats every', type: 'text' },
  { address: '/cells/done', name: 'done', type: 'text' },
]
const doc: Group = {
  bridge: 'b',
  from: { system: 'sheets', collection: 'rounds', event: ['changed'] },
  match: ['/id'],
}
const rows: RowsView = {
  problem: '',
  all: 2,
  bad: 1,
  rows: [
    {
      record: 'r-2',
      name: 'Dust',
      words: '',
      problem: 'repeats every: “now and then” says nothing that comes round',
      rests: '',
      local: '',
      make: null,
    },
    {
      record: 'r-1',
      name: 'Water',
      words: 'every Monday at 06:00 in Lisbon',
      problem: '',
      rests: '',
      local: '2026-11-30T06:00',
      make: '2026-11-30T06:00:00Z',
    },
  ],
}
const mounted = (part: Group = doc) =>
  mount(ChoresEditor, {
    props: { id: 'b', doc: part, record: 'round', cells, calendars: ['garden'] },
  })
const last = (view: ReturnType<typeof mounted>) => view.emitted('change')!.at(-1)![0] as Group
const chores = (view: ReturnType<typeof mounted>) => (last(view).from as Group).chores as Group

beforeEach(() => {
  vi.useFakeTimers()
  previewRows.mockReset().mockResolvedValue(rows)
})
afterEach(() => vi.useRealTimers())

describe('rows that come round, at the desk', () => {
  it('are one choice away, and one task is made for each time of a row', async () => {
    const view = mounted()
    expect(view.text()).toBe('Each round comes round by itself, as its row says')
    await view.get('input[type=checkbox]').setValue(true)
    expect(chores(view).every).toBe('/cells/repeat')
    expect(last(view).match).toEqual(['event/record', '/occurrence/said'])
    await view.setProps({ doc: last(view) })
    await view.get('input[type=checkbox]').setValue(false)
    expect(last(view)).toEqual({ ...doc, match: ['event/record'] })
  })

  it('are said part by part, and what is left is left out of the document', async () => {
    const view = mounted()
    await view.get('input[type=checkbox]').setValue(true)
    await view.setProps({ doc: last(view) })
    await view.get('[aria-label="When it was done last"]').setValue('/cells/done')
    expect(chores(view).done).toEqual({ value: '/cells/done', steps: [{ 'read-day': 'iso' }] })
    await view.setProps({ doc: last(view) })
    await view.get('[aria-label="When it was done last: written like"]').setValue('dots')
    expect(JSON.stringify(chores(view).done)).toContain('d.M.uuuu')
    await view.get('[aria-label="On a day that is no working day"]').setValue('next')
    expect(chores(view)).toMatchObject({ 'off-days': 'next', calendar: 'garden' })
    await view.setProps({ doc: last(view) })
    await view.get('[aria-label="at"]').setValue('')
    expect(chores(view)).not.toHaveProperty('at')
    await view.get('[aria-label="in"]').setValue('/cells/round')
    expect(chores(view).zone).toBe('/cells/round')
  })

  it('shows when each row would come round, those that cannot first', async () => {
    const view = mounted({ ...doc, from: { ...(doc.from as Group), chores: { every: '/x' } } })
    await vi.runAllTimersAsync()
    await flushPromises()
    expect(previewRows).toHaveBeenCalledOnce()
    expect(view.text()).toContain('1 row cannot be used, and keeps no other from coming round')
    const lines = view.findAll('tbody tr').map((row) => row.text())
    expect(lines[0]).toContain('“now and then” says nothing that comes round')
    expect(lines[1]).toContain('Every Monday at 06:00 in Lisbon')
    expect(lines[1]).toContain('Mon 30 Nov 2026')
  })

  it('says what is wrong and keeps what was good', async () => {
    const part = { ...doc, from: { ...(doc.from as Group), chores: { every: '/x' } } }
    const view = mounted(part)
    await vi.runAllTimersAsync()
    previewRows.mockResolvedValue({ problem: 'No such zone', rows: [], all: 0, bad: 0 })
    await view.setProps({ doc: { ...part, name: 'other' } })
    await vi.runAllTimersAsync()
    await flushPromises()
    expect(view.get('[role=alert]').text()).toBe('No such zone')
    expect(view.findAll('tbody tr')).toHaveLength(2)
  })
})
