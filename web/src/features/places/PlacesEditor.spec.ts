import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { serve } from '@/test/desk'
import type { Group } from '@/shared/tree'
import PlacesEditor from './PlacesEditor.vue'
import { said } from './document'

const DOC: Group = {
  from: { system: 'boards', collection: 'lists:b', event: ['created'] },
  to: { system: 'ledger', collection: 'jobs' },
  match: ['/id'],
}
const alike = (ids: string[]) => ({
  of: 'lists',
  name: 'List',
  id: 'b',
  places: ids.map((id) => ({ id, name: `List ${id}` })),
  tables: [{ id: 'beds', name: 'Beds', columns: ['list', 'job'] }],
})

async function editor(doc = DOC, ids = ['a', 'b', 'c']) {
  serve({ 'GET /desk/places-alike': alike(ids) })
  const view = mount(PlacesEditor, {
    props: { doc, system: 'boards', collection: 'lists:b', kinds: ['created'], target: 'jobs' },
  })
  await flushPromises()
  const last = () => view.emitted('change')!.at(-1)![0] as Group
  /** Chooses, and goes on with what it came to. */
  const choose = async (label: string, value: string) => {
    await view.get(`[aria-label="${label}"]`).setValue(value)
    await view.setProps({ doc: last() })
  }
  return { view, last, choose }
}

describe('which places a bridge hears', () => {
  it('is not asked where there is one alone', async () => {
    const { view } = await editor(DOC, ['b'])
    expect(view.find('section').exists()).toBe(false)
  })

  it('begins with all there are, and leaves out what is taken off the list', async () => {
    const { view, last, choose } = await editor()
    await choose('Which places it hears', 'all')
    expect(said(last())).toMatchObject({ of: 'lists', ids: ['a', 'b', 'c'] })
    expect(view.text()).toContain('3 of 3 places')
    await view.findAll('li input')[0]!.setValue(false)
    expect(said(last())).toMatchObject({ ids: ['b', 'c'], leftOut: ['a'] })
  })

  it('finds places, and takes those that are shown together', async () => {
    const { view, last, choose } = await editor()
    await choose('Which places it hears', 'named')
    expect(said(last()).ids).toEqual(['b'])
    await view.get('[aria-label="Find a place"]').setValue('list c')
    expect(view.findAll('li')).toHaveLength(1)
    await view.get('.tools input[type=checkbox]').setValue(true)
    expect(said(last()).ids).toEqual(['b', 'c'])
  })

  it('never hears none', async () => {
    const { view, last, choose } = await editor()
    await choose('Which places it hears', 'named')
    await view.findAll('li input')[1]!.setValue(false)
    expect(said(last()).ids).toEqual(['b'])
  })

  it('takes those of a table, and writes to the place that a column names', async () => {
    const { last, choose } = await editor()
    await choose('Which places it hears', 'table')
    await choose('The column in which they stand', 'list')
    await choose('Where it writes to', 'job')
    expect(said(last())).toMatchObject({ how: 'table', table: 'beds', column: 'list', take: 'job' })
    await choose('Which places it hears', 'one')
    expect(last().from).toEqual({ system: 'boards', collection: 'lists:b', event: ['created'] })
    expect(last().to).toEqual({ system: 'ledger', collection: 'jobs' })
  })

  it('shows what is heard and is not there any more', async () => {
    const doc = {
      ...DOC,
      from: { system: 'boards', places: { of: 'lists', named: ['b', 'z'] }, event: ['created'] },
    }
    const { view } = await editor(doc)
    expect(view.text()).toContain('z is not there now')
  })
})
