import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { refusal, serve } from '@/test/desk'
import StatusPlay from './StatusPlay.vue'
import StatusTable from './StatusTable.vue'
import type { StatusGrid } from './api'
import type { Group } from './tree'

const names = (...keys: string[]) => keys.map((key) => ({ key, name: key.toUpperCase() }))
const grid = (part: Partial<StatusGrid> = {}): StatusGrid => ({
  field: 'status',
  left: {
    of: 'Board',
    field: 'Lane',
    goes: true,
    statuses: names('wanted', 'doing'),
    across: { wanted: 'open', doing: 'done' },
  },
  right: {
    of: 'Ledger',
    field: 'Status',
    goes: true,
    statuses: names('open', 'planned', 'done'),
    across: { open: 'wanted', planned: 'wanted' },
  },
  findings: [],
  ...part,
})
const doc: Group = {
  bridge: 'b',
  fields: {
    title: { left: 'title', right: 'title' },
    status: {
      left: 'lane',
      right: 'status',
      'to-right': { values: { wanted: 'open' }, otherwise: 'done' },
      'to-left': { values: { open: 'wanted', planned: 'wanted' } },
    },
  },
}

function table(of = grid()) {
  const view = mount(StatusTable, { props: { grid: of, doc }, attachTo: document.body })
  const cells = () => view.findAll('td[role="gridcell"]')
  const changed = () => {
    const last = view.emitted('change')?.at(-1)?.[0] as Group | undefined
    return (last?.fields as Group | undefined)?.status
  }
  return { view, cells, changed }
}

describe('a table of statuses', () => {
  it('says in each cell which way it maps', () => {
    const { cells } = table()
    expect(cells().map((cell) => cell.text())).toEqual(['↔', '←', '', '', '', '→'])
    expect(cells()[1]!.attributes('aria-label')).toBe(
      '“PLANNED” in Ledger becomes “WANTED” in Board',
    )
    // What stands there only as one of all others is told from what has its own line.
    expect(cells()[5]!.classes()).toContain('others')
    expect(cells()[0]!.classes()).not.toContain('others')
  })

  it('is walked and filled by keyboard', async () => {
    const { view, cells, changed } = table()
    const first = cells()[0]!
    await first.trigger('keydown', { key: 'ArrowDown' })
    await cells()[3]!.trigger('keydown', { key: 'ArrowRight' })
    await flushPromises()
    expect(document.activeElement).toBe(cells()[4]!.element)
    await cells()[4]!.trigger('keydown', { key: 'b' })
    expect(changed()).toEqual({
      left: 'lane',
      right: 'status',
      'to-right': { values: { wanted: 'open', doing: 'planned' }, otherwise: 'done' },
      'to-left': { values: { open: 'wanted', planned: 'doing' } },
    })
    expect(view.emitted('change')).toHaveLength(1)
  })

  it('takes a line away, and leaves the other way as it is', async () => {
    const { cells, changed } = table()
    await cells()[0]!.trigger('keydown', { key: 'Delete' })
    expect(changed()).toMatchObject({
      'to-right': { values: {}, otherwise: 'done' },
      'to-left': { values: { planned: 'wanted' } },
    })
  })

  it('reads what stands there from the document, though its table is still that before', async () => {
    const { view, cells, changed } = table()
    await cells()[1]!.trigger('focus')
    await cells()[1]!.trigger('keydown', { key: 'b' })
    const made = view.emitted('change')!.at(-1)![0] as Group
    await view.setProps({ doc: made })
    await cells()[1]!.trigger('keydown', { key: 'n' })
    expect(changed()).toMatchObject({
      'to-right': { values: {}, otherwise: 'done' },
      'to-left': { values: { open: 'wanted' } },
    })
    await view.setProps({ doc: view.emitted('change')!.at(-1)![0] as Group })
    await cells()[1]!.trigger('keydown', { key: 'n' })
    expect(view.emitted('change')).toHaveLength(2)
  })

  it('keeps a cell that can be reached when a status goes', async () => {
    const { view, cells } = table()
    await cells()[5]!.trigger('focus')
    const less = grid()
    await view.setProps({
      grid: { ...less, right: { ...less.right, statuses: less.right.statuses.slice(0, 2) } },
    })
    expect(view.findAll('td[tabindex="0"]')).toHaveLength(1)
  })

  it('does not fill the way that its field does not go', async () => {
    const follows = grid()
    const { view, cells } = table({ ...follows, right: { ...follows.right, goes: false } })
    expect(cells()[1]!.text()).toBe('')
    await cells()[0]!.trigger('keydown', { key: 'l' })
    expect(view.emitted('change')).toBeUndefined()
    expect(view.findAll('.acts .btn').map((btn) => btn.attributes('disabled') === '')).toEqual([
      false,
      true,
      true,
      false,
    ])
  })
})

describe('playing it through', () => {
  const step = {
    side: 'RIGHT',
    left: 'WANTED',
    right: 'PLANNED',
    wrote: null,
    words: 'Nothing is written',
  }

  async function play(answer: unknown) {
    const asked = serve({ 'POST /played': answer })
    const view = mount(StatusPlay, { props: { id: 'b', text: '{"a":"1"}', grid: grid() } })
    const press = async (text: string) => {
      await view
        .findAll('button')
        .find((button) => button.text() === text)!
        .trigger('click')
      await flushPromises()
    }
    return { view, asked, press }
  }

  it('sends all changes from where both agree, and shows what comes of each', async () => {
    const { view, asked, press } = await play([step])
    await press('PLANNED')
    expect(asked[0]!.body).toEqual({
      document: '{"a":"1"}',
      field: 'status',
      left: 'wanted',
      right: 'open',
      changes: [{ side: 'RIGHT', status: 'planned' }],
    })
    expect(view.text()).toContain('Nothing is written')
    expect(view.get('[aria-label="Ledger"] [aria-pressed="true"]').text()).toBe('PLANNED')
    await press('Begin anew')
    expect(view.findAll('tbody tr')).toHaveLength(1)
    expect(asked).toHaveLength(1)
  })

  it('says why it cannot', async () => {
    const { view, press } = await play(refusal('There is no such status'))
    await press('DONE')
    expect(view.get('[role="alert"]').text()).toContain('There is no such status')
  })
})
