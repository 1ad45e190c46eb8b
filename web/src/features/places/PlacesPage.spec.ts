import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import PlacesPage from './PlacesPage.vue'
import type { HeardPlace, Places } from './api'

useSession().zone.value = 'Europe/Lisbon'

const heard = (id: string, more: Partial<HeardPlace> = {}): HeardPlace => ({
  id,
  collection: `lists:${id}`,
  name: `List ${id}`,
  to: 'Jobs',
  gone: false,
  made: 3,
  changed: 0,
  nothing: 0,
  failed: 0,
  halfHours: Array.from({ length: 48 }, (_, i) => (i === 47 ? 3 : 0)),
  creates: 3,
  changes: 0,
  messages: 0,
  underWay: 0,
  needAPerson: 0,
  last: '2026-11-29T08:00:00Z',
  odd: null,
  ...more,
})
const places: Places = {
  bridge: 'beds',
  name: 'Beds',
  version: 7,
  systemName: 'Boards',
  targetName: 'Ledger',
  how: 'table',
  table: 'beds',
  tableName: 'Beds and yards',
  columns: [
    { name: 'yard', type: 'text' },
    { name: 'crew', type: 'text' },
  ],
  ceilingSeconds: 3600,
  mostCreates: 60,
  mostChanges: 200,
  mostMessages: 60,
  places: [
    heard('one'),
    heard('two', { made: 0, failed: 2, needAPerson: 1, creates: 0 }),
    heard('three', {
      gone: true,
      last: null,
      odd: { silent: true, since: '2026-11-28T08:00:00Z', came: 0, usual: 41.6 },
    }),
  ],
  offered: [
    { id: 'four', name: 'List four' },
    { id: 'five', name: 'List five' },
  ],
  leftOut: [{ id: 'six', name: 'List six' }],
}

async function page(part: Partial<Places> = {}) {
  const answer = { ...places, ...part }
  const asked = serve({
    'POST /bridges/beds/places/take': { ...answer, offered: [], version: 8 },
    'POST /bridges/beds/places/leave-out': answer,
    'POST /bridges/beds/places/offer-again': answer,
    'GET /bridges/beds/places': answer,
  })
  const view = mount(PlacesPage, {
    props: { id: 'beds' },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  await flushPromises()
  const press = async (words: string) => {
    await view
      .findAll('button')
      .find((one) => one.text() === words)!
      .trigger('click')
    await flushPromises()
  }
  return { view, asked, press }
}

describe('the places of a bridge', () => {
  it('say what became of each, and how much of the ceiling it took', async () => {
    const { view } = await page()
    const rows = view.findAll('tbody tr')
    expect(rows[0]!.text()).toContain('3 of 60 created')
    expect(rows[1]!.text()).toContain('1 need you')
    expect(rows[2]!.text()).toContain('is not there any more')
    expect(rows[2]!.text()).toContain('42 would be usual')
    expect(rows[2]!.text()).toContain('none yet')
    expect(view.text()).toContain('Those of the table Beds and yards.')
  })

  it('can be narrowed to those that need somebody', async () => {
    const { view } = await page()
    await view.get('.tools select').setValue('failing')
    expect(view.findAll('tbody tr')).toHaveLength(1)
    await view.get('.tools input').setValue('nothing like it')
    expect(view.text()).toContain('No place is like that.')
  })

  it('are taken as rows with what each row says', async () => {
    const { view, asked, press } = await page()
    await view.findAll('.offered li input[type=checkbox]')[1]!.setValue(true)
    await view.get('[aria-label="yard of List five"]').setValue('beds-west')
    await press('Hear it')
    expect(asked.find(({ key }) => key.endsWith('/take'))!.body).toEqual({
      version: 7,
      places: [{ id: 'five', cells: { yard: 'beds-west' } }],
    })
    expect(view.find('.offered').exists()).toBe(false)
  })

  it('are left out together, and offered again one by one', async () => {
    const { view, asked, press } = await page()
    await view.get('.offered .acts input').setValue(true)
    expect(view.text()).toContain('Hear 2 places')
    await press('Leave out')
    await view.get('[aria-label="Offer List six again"]').trigger('click')
    await flushPromises()
    const bodies = asked.filter(({ key }) => key.startsWith('POST')).map(({ body }) => body)
    expect(bodies).toEqual([
      { version: 7, ids: ['four', 'five'] },
      { version: 7, ids: ['six'] },
    ])
  })

  it('can be let go where all are heard, and not where a table names them', async () => {
    const { view } = await page({ how: 'all', columns: [] })
    expect(view.findAll('[aria-label$=" no more"]')).toHaveLength(3)
    const named = await page()
    expect(named.view.findAll('[aria-label$=" no more"]')).toHaveLength(0)
  })
})
