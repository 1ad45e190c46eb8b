import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { serve } from '@/test/desk'
import ConnectPage from './ConnectPage.vue'
import type { Described } from './connect'

const push = vi.hoisted(() => vi.fn())
vi.mock('vue-router', () => ({ useRouter: () => ({ push }) }))

const described: Described = {
  id: 'ledger',
  name: 'Ledger',
  address: 'https://ledger.example',
  known: false,
  secrets: [{ name: 'ledger-token', kept: false }],
  collections: [
    {
      id: 'jobs',
      name: 'Jobs',
      calls: ['changes', 'find', 'make'],
      fields: [{ key: 'title', name: 'Title', type: 'text', required: true }],
      holds: [],
      hook: '',
    },
  ],
}
const outcome = (works: boolean, said: string, id = '') => ({
  works,
  said,
  record: '',
  id,
  differences: [],
  calls: [{ request: ['GET /x'], requestBody: '', status: 200, responseBody: '{}', problem: '' }],
})

async function page(routes: Record<string, unknown> = {}) {
  const asked = serve({
    'POST /drafts': {
      document: 'system: ledger',
      remarks: [{ about: 'jobs', text: 'No key was found.' }],
    },
    'POST /descriptions': described,
    'POST /trials': outcome(true, '3 jobs came', 'wl-1'),
    'POST /api/connect': undefined,
    ...routes,
  })
  const view = mount(ConnectPage, { global: { stubs: { RouterLink: RouterLinkStub } } })
  await view.get('#openapi').setValue('https://ledger.example/openapi.json')
  await view.get('form').trigger('submit')
  await flushPromises()
  await vi.advanceTimersByTimeAsync(400)
  await flushPromises()
  return { view, asked }
}

describe('connecting a system', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    push.mockReset()
  })

  it('begins with a draft, what to look at, and the calls that can be tried', async () => {
    const { view, asked } = await page()
    expect(asked[0]).toMatchObject({
      key: 'POST /drafts',
      body: { address: 'https://ledger.example/openapi.json' },
    })
    expect(view.get<HTMLTextAreaElement>('textarea').element.value).toBe('system: ledger')
    expect(view.text()).toContain('No key was found.')
    expect(view.text()).toContain('Ask what changed')
    expect(view.text()).toContain('writes there')
  })

  it('begins by hand with a document whose places are left to fill', async () => {
    serve({ 'POST /descriptions': described })
    const view = mount(ConnectPage, { global: { stubs: { RouterLink: RouterLinkStub } } })
    await view
      .findAll('button')
      .find((one) => one.text() === 'A task list')!
      .trigger('click')
    expect(view.get<HTMLTextAreaElement>('textarea').element.value).toContain('speaks: caldav')
  })

  it('tries a call with what is typed and goes on with the id that came', async () => {
    const { view, asked } = await page()
    await view.get('input[type=password]').setValue('shh')
    expect(view.get('[aria-label="Find one by its id: Jobs"]').attributes()).toHaveProperty(
      'disabled',
    )
    await view.get('[aria-label="Ask what changed: Jobs"]').trigger('click')
    await flushPromises()
    expect(asked.find((one) => one.key === 'POST /trials')?.body).toMatchObject({
      secrets: { 'ledger-token': 'shh' },
      collection: 'jobs',
      call: 'changes',
    })
    expect(view.text()).toContain('3 jobs came')
    expect(view.get('[aria-label="Find one by its id: Jobs"]').attributes()).not.toHaveProperty(
      'disabled',
    )
  })

  it('says so before it takes the place of a system that is connected', async () => {
    const { view } = await page({ 'POST /descriptions': { ...described, known: true } })
    expect(view.text()).toContain('A system “ledger” is connected already')
    expect(view.get('footer .btn').text()).toBe('Replace its document')
  })

  it('is kept with its secrets', async () => {
    const { view, asked } = await page()
    await view.get('footer .btn').trigger('click')
    await flushPromises()
    expect(asked.find((one) => one.key === 'POST /api/connect')?.body).toMatchObject({
      document: 'system: ledger',
    })
    expect(push).toHaveBeenCalledWith({ name: 'systems' })
  })
})
