import { flushPromises, mount } from '@vue/test-utils'
import { createMemoryHistory, createRouter } from 'vue-router'
import { describe, expect, it, vi } from 'vitest'
import WherePage from './WherePage.vue'
import * as api from './api'
import type { FoundRecord } from './api'

const record = (id: string): FoundRecord => ({
  system: 'desk',
  collection: 'reports',
  record: id,
  place: 'Reports of the Desk',
  title: id === 'vd-1' ? 'Moss on the bridge' : '',
})

async function shown(
  text: string,
  known: FoundRecord[],
  asked: FoundRecord[],
  silent: string[],
  notAsked: string[] = [],
  more = false,
) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/where', name: 'where', component: { template: '<i />' } }],
  })
  await router.push({ path: '/where', query: { text } })
  const find = vi
    .spyOn(api, 'findRecords')
    .mockClear()
    .mockImplementation((_, ask) =>
      Promise.resolve(
        ask
          ? { records: asked, more: false, silent, notAsked }
          : { records: known, more, silent: [], notAsked: [] },
      ),
    )
  const page = mount(WherePage, {
    global: { plugins: [router], stubs: { WhereRecord: { template: '<p>the record</p>' } } },
  })
  await flushPromises()
  return { page, find, router }
}

describe('what is looked for', () => {
  it('is shown at once where one record alone can be meant', async () => {
    const { page, router } = await shown('vd-1', [record('vd-1')], [], [])
    expect(router.currentRoute.value.query).toEqual({
      text: 'vd-1',
      system: 'desk',
      collection: 'reports',
      record: 'vd-1',
    })
    expect(page.text()).toContain('the record')
  })

  it('is chosen where several may be meant', async () => {
    const { page } = await shown('moss', [record('vd-1'), record('vd-2')], [], [])
    expect(page.findAll('li').map((li) => li.text())).toEqual([
      'vd-1Moss on the bridgeReports of the Desk',
      'vd-2Reports of the Desk',
    ])
    expect(page.text()).not.toContain('there are more')
    await page.findAll('li button')[1]!.trigger('click')
    await flushPromises()
    expect(page.text()).toContain('the record')
  })

  it('says when more may be meant than are shown', async () => {
    const { page } = await shown('moss', [record('vd-1'), record('vd-2')], [], [], [], true)
    expect(page.text()).toContain('These came last; there are more.')
  })

  it('is asked of the sources when a person wants it, and who does not answer is named', async () => {
    const silent = ['Reports of the Desk']
    const { page, find } = await shown('vd-9', [], [], silent, ['Board of Bed boards'])
    expect(find).toHaveBeenCalledTimes(1)
    expect(page.text()).toContain('Nothing that was received says so.')
    await page.findAll('button').at(-1)!.trigger('click')
    await flushPromises()
    expect(find).toHaveBeenLastCalledWith('vd-9', true)
    expect(page.text()).toContain('since they did not answer: Reports of the Desk.')
    expect(page.text()).toContain('No source that was asked said that it has')
    expect(page.text()).toContain('an id alone names none: Board of Bed boards.')
  })
})
