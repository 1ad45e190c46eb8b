import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import '@/test/desk'
import { registerRow } from '@/test/register'
import { useSession } from '@/shared/composables/session'
import RegisterTable from './RegisterTable.vue'
import * as api from './api'

const route = reactive<{ query: Record<string, string> }>({ query: {} })
vi.mock('vue-router', () => ({
  useRoute: () => route,
  useRouter: () => ({
    replace: ({ query }: { query: Record<string, string> }) => (route.query = query),
  }),
}))
vi.mock('@/shared/composables/live', () => ({ onChange: () => {} }))
useSession().zone.value = 'Europe/Lisbon'

const row = (id: string, part = {}) =>
  registerRow(id, { because: '3 of 9 of the last day failed', came: 9, failed: 3, ...part })

async function table() {
  const mounted = mount(RegisterTable, { global: { stubs: { RouterLink: RouterLinkStub } } })
  await flushPromises()
  return mounted
}

describe('the register', () => {
  beforeEach(() => {
    route.query = {}
    vi.spyOn(api, 'readRegister').mockResolvedValue({
      rows: [row('a', { owner: 'Ana' }), row('b', { failed: 12, condition: 'BROKEN' })],
      views: [{ name: 'Of Ana', query: 'owner=Ana' }],
    })
  })

  it('is sorted by a column and filtered, and the address says so', async () => {
    const register = await table()
    const named = (name: string) => register.findAll('th button').find((b) => b.text() === name)!
    await named('Failed').trigger('click')
    expect(route.query).toEqual({ sort: '-failed' })
    expect(register.findAll('tbody td a').map((a) => a.text())).toEqual(['Bridge b', 'Bridge a'])
    expect(register.findAllComponents(RouterLinkStub).map((link) => link.props('to'))).toEqual([
      { name: 'desk', params: { id: 'b' } },
      { name: 'bridge', params: { id: 'a' } },
    ])
    expect(register.find('th[aria-sort="descending"]').text()).toContain('Failed')
    await register.find('select[aria-label="Owner"]').setValue('Ana')
    expect(route.query).toEqual({ sort: '-failed', owner: 'Ana' })
    expect(register.findAll('tbody tr')).toHaveLength(1)
  })

  it('shows a view by its name and keeps another', async () => {
    const keep = vi.spyOn(api, 'keepView').mockResolvedValue([])
    const register = await table()
    await register.find('select[aria-label="View"]').setValue('Of Ana')
    expect(route.query).toEqual({ owner: 'Ana' })
    await register.find('select[aria-label="Group by"]').setValue('source')
    await register
      .findAll('button')
      .find((one) => one.text() === 'Keep this view…')!
      .trigger('click')
    await register.find('#view input').setValue('By source')
    await register.find('#view').trigger('submit')
    expect(keep).toHaveBeenCalledWith('By source', 'owner=Ana&group=source')
  })

  it('says whose a bridge is, on what the person saw', async () => {
    const say = vi.spyOn(api, 'sayWhose').mockResolvedValue(row('b'))
    const register = await table()
    await register.find('button[aria-label="Whose Bridge b is"]').trigger('click')
    expect(register.text()).toContain('Measured: 3 of 9 of the last day failed.')
    const [owner, standIn, department] = register.findAll('#card input')
    await owner!.setValue('Rui')
    await standIn!.setValue('Ana')
    await department!.setValue('Works')
    await register.find('#card select').setValue('BEING_TESTED')
    await register.find('#card').trigger('submit')
    await flushPromises()
    expect(say).toHaveBeenCalledWith('b', {
      owner: 'Rui',
      standIn: 'Ana',
      department: 'Works',
      judged: 'BEING_TESTED',
      basedOn: 0,
    })
    expect(register.find('#card').exists()).toBe(false)
  })
})
