import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import WhatMoves from './WhatMoves.vue'

const api = vi.hoisted(() => ({ readSets: vi.fn(), readMoved: vi.fn() }))
vi.mock('./api', () => api)

const task = (part: object) => ({
  member: 'm',
  title: 'Opening',
  because: '',
  fields: [],
  removed: false,
  ...part,
})

beforeEach(() => {
  api.readSets.mockResolvedValue({ sets: [{ record: 'e-1', name: 'Mosses' }], noAnchor: 'close' })
  api.readMoved.mockReset().mockResolvedValue({
    problem: '',
    tasks: [
      task({ fields: [{ name: 'Due', before: 'Mon 1 Mar 2027', after: 'Mon 8 Mar 2027' }] }),
      task({ member: 'n', title: 'Plan', because: 'someone has worked on it since' }),
      task({ member: 'o', title: 'Labels', removed: true }),
    ],
  })
})

async function shown() {
  const view = mount(WhatMoves, { props: { id: 'b', target: 'Ledger' } })
  await flushPromises()
  return view
}

describe('what would move', () => {
  it('is asked once both a set and a day are chosen, and told task by task', async () => {
    const view = await shown()
    await view.get('select').setValue('e-1')
    expect(api.readMoved).not.toHaveBeenCalled()
    await view.get('input[type=date]').setValue('2027-03-08')
    await flushPromises()
    expect(api.readMoved).toHaveBeenCalledWith('b', 'e-1', '2027-03-08')
    expect(view.text()).toContain('2 tasks at Ledger would change, 1 would stay.')
    const lines = view.findAll('tr').map((row) => row.text())
    expect(lines[0]).toContain('Mon 1 Mar 2027 → Mon 8 Mar 2027')
    expect(lines[1]).toContain('Someone has worked on it since')
    expect(lines[2]).toContain('taken away')
  })

  it('can be a day that is taken away, and an older answer never counts', async () => {
    const view = await shown()
    await view.get('select').setValue('e-1')
    let late: (answer: unknown) => void = () => {}
    api.readMoved.mockReturnValueOnce(new Promise((done) => (late = done)))
    await view.get('input[type=date]').setValue('2027-03-08')
    await view.get('input[type=checkbox]').setValue(true)
    await flushPromises()
    expect(api.readMoved).toHaveBeenLastCalledWith('b', 'e-1', '')
    late({ problem: 'old', tasks: [] })
    await flushPromises()
    expect(view.text()).not.toContain('old')
    expect(view.findAll('tr')).toHaveLength(3)
  })

  it('says why it cannot be told', async () => {
    const view = await shown()
    api.readMoved.mockRejectedValue(new Error('The board does not answer'))
    await view.get('select').setValue('e-1')
    await view.get('input[type=date]').setValue('2027-03-08')
    await flushPromises()
    expect(view.get('[role=alert]').text()).toBe('The board does not answer')
  })
})
