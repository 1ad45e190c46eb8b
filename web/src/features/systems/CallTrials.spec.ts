import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { serve } from '@/test/desk'
import CallTrials from './CallTrials.vue'
import type { CallOutcome, CollectionOfSystem } from './connect'

const jobs: CollectionOfSystem = {
  id: 'jobs',
  name: 'Jobs',
  calls: ['changes', 'find', 'make', 'remove'],
  fields: [
    { key: 'title', name: 'Title', type: 'text', required: true },
    { key: 'due', name: 'Due', type: 'day', required: false },
  ],
  holds: [],
  hook: '',
}
const outcome = (more: Partial<CallOutcome>): CallOutcome => ({
  works: true,
  said: '',
  record: '',
  id: '',
  differences: [],
  calls: [],
  ...more,
})

function mounted(answer: CallOutcome, collection = jobs) {
  const asked = serve({ 'POST /trials': answer })
  const view = mount(CallTrials, {
    props: { collection, document: 'system: x', secrets: { token: 'shh' } },
  })
  const press = async (label: string) => {
    await view.get(`[aria-label="${label}"]`).trigger('click')
    await flushPromises()
  }
  const sent = () => asked.at(-1)?.body as Record<string, unknown>
  return { view, press, sent }
}

describe('the calls of a collection', () => {
  it('are told apart by whether they write', () => {
    const { view } = mounted(outcome({}))
    const reads = view.findAll('ul')[0]!
    expect(reads.text()).toContain('Ask what changed')
    expect(reads.text()).not.toContain('Make one')
    expect(view.get('details summary').text()).toBe('Calls that write there')
    expect(view.text()).toContain('writes there')
  })

  it('need an id where one record is meant', async () => {
    const { view, press, sent } = mounted(outcome({ said: '1 job came', id: 'wl-7' }))
    const find = () =>
      view.get<HTMLButtonElement>('[aria-label="Find one by its id: Jobs"]').element
    expect(find().disabled).toBe(true)
    await press('Ask what changed: Jobs')
    expect(find().disabled).toBe(false)
    await press('Find one by its id: Jobs')
    expect(sent()).toMatchObject({ call: 'find', id: 'wl-7' })
  })

  it('make a record of the fields that are filled', async () => {
    const { view, press, sent } = mounted(outcome({ said: 'Made as “wl-7”', id: 'wl-7' }))
    await view.findAll('.fields input')[0]!.setValue('Rake')
    await press('Make one: Jobs')
    expect(sent()).toMatchObject({
      document: 'system: x',
      secrets: { token: 'shh' },
      collection: 'jobs',
      call: 'make',
      fields: { title: 'Rake' },
    })
    expect(view.text()).toContain('Made as “wl-7”')
  })

  it('show how records differ from what is described, and what was sent', async () => {
    const { view, press } = mounted(
      outcome({
        said: '2 jobs came',
        differences: ['No record has the field status (/status)'],
        calls: [
          {
            request: ['GET https://x/jobs', 'Authorization: ••••••••'],
            requestBody: '',
            status: 200,
            responseBody: '{"jobs":[]}',
            problem: '',
          },
        ],
      }),
    )
    await press('Ask what changed: Jobs')
    expect(view.text()).toContain('No record has the field status (/status)')
    expect(view.get('pre').text()).toBe('GET https://x/jobs\nanswered 200\n{"jobs":[]}')
  })

  it('say in words why one does not work', async () => {
    const { view, press } = mounted(outcome({ works: false, said: 'Jobs answered 401.' }))
    await press('Ask what changed: Jobs')
    expect(view.get('.result .bad').text()).toBe('Jobs answered 401.')
  })

  it('name the address of webhooks, and that nothing can be tried', () => {
    const { view } = mounted(outcome({}), {
      ...jobs,
      calls: [],
      fields: [],
      holds: [],
      hook: '/hooks/chat/reactions',
    })
    expect(view.text()).toContain('Its webhooks go to /hooks/chat/reactions')
    expect(view.text()).toContain('No call is described that could be tried.')
  })
})
