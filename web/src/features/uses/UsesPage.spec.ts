import { flushPromises, mount } from '@vue/test-utils'
import { createMemoryHistory, createRouter } from 'vue-router'
import { describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import UsesPage from './UsesPage.vue'
import * as api from './api'
import type { Things, UseLine } from './api'

useSession().zone.value = 'Europe/Lisbon'

const things: Things = {
  systems: [
    {
      id: 'board',
      name: 'Board',
      collections: [
        { id: 'tasks', name: 'Tasks', fields: [{ id: 'title', name: 'Title' }] },
        { id: 'lists', name: 'Lists', fields: [] },
      ],
    },
  ],
  tables: [{ id: 'stewards', name: 'Stewards' }],
  calendars: [],
  bridges: [],
  secrets: ['board-token'],
}
const place = (
  how: UseLine['places'][number]['how'],
  what: string,
  words: string,
  path: string,
) => ({
  how,
  what,
  words,
  path,
})
const line: UseLine = {
  bridge: 'one',
  name: 'One',
  held: true,
  places: [
    place('WRITES', 'Tasks', 'where it writes', 'to'),
    place('LOOKS_UP', 'Lists', 'the lookup list', 'lookups/list'),
    place('LOOKS_UP', 'Lists', 'the lookup list', 'lookups/list'),
  ],
}

async function shown(address: string) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: ['/hangs-on', '/bridges/:id', '/bridges/:id/desk'].map((path, i) => ({
      path,
      name: ['uses', 'bridge', 'desk'][i]!,
      component: { template: '<i />' },
    })),
  })
  await router.push(address)
  vi.spyOn(api, 'readThings').mockResolvedValue(things)
  const uses = vi.spyOn(api, 'readUses').mockResolvedValue({ bridges: [line], unknown: ['old'] })
  vi.spyOn(api, 'readLeaving').mockResolvedValue({
    name: 'Board',
    unknown: [],
    bridges: [
      {
        bridge: 'one',
        name: 'One',
        purpose: 'It tells',
        owner: '',
        needs: [
          {
            how: 'WRITES',
            collection: 'Tasks',
            what: 'a place where a task can be made and changed',
            fields: ['Title, a text'],
            tables: ['stewards'],
          },
        ],
      },
    ],
  })
  const page = mount(UsesPage, { global: { plugins: [router] } })
  await flushPromises()
  return { page, uses, router }
}

describe('what hangs on a thing', () => {
  it('says what each bridge does with a system, and what it would need without it', async () => {
    const { page } = await shown('/hangs-on?kind=system&system=board')
    expect(page.findAll('table tbody td').map((cell) => cell.text())).toEqual([
      'One held',
      'looks up Lists: the lookup listwrites Tasks',
    ])
    expect(page.text()).toContain('they cannot be used any more: old')
    expect(page.find('article').text()).toContain('nobody is said to own it')
    expect(page.find('article').text()).toContain('is entered anew: Stewards')
    expect(page.text()).not.toContain('If it is called otherwise')
  })

  it('is asked by its address, down to a field', async () => {
    const { page, uses, router } = await shown('/hangs-on?kind=system&system=board')
    await page.find('select[aria-label=Collection]').setValue('tasks')
    await flushPromises()
    await page.find('select[aria-label=Field]').setValue('title')
    await flushPromises()
    expect(router.currentRoute.value.query).toEqual({
      kind: 'system',
      system: 'board',
      collection: 'tasks',
      field: 'title',
    })
    expect(uses.mock.lastCall?.[0].field).toBe('title')
    expect(page.text()).not.toContain('If we leave')
  })

  it('shows what becomes of the rules if a field is called otherwise, and keeps all or none', async () => {
    const see = vi
      .spyOn(api, 'seeRenaming')
      .mockResolvedValue([
        { bridge: 'one', name: 'One', places: ['Title'], problem: 'somebody is at work on it' },
      ])
    const { page } = await shown('/hangs-on?kind=system&system=board&collection=tasks&field=title')
    await page.find('input').setValue('name')
    await page.findAll('form')[1]!.trigger('submit')
    await flushPromises()
    expect(see).toHaveBeenCalledWith({
      system: 'board',
      collection: 'tasks',
      field: 'title',
      to: 'name',
    })
    expect(page.text()).toContain('cannot be written so: somebody is at work on it')
    expect(page.find('button.main').attributes('disabled')).toBeDefined()
  })
})
