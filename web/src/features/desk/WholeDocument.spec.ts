import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { refusal, serve } from '@/test/desk'
import WholeDocument from './WholeDocument.vue'

useSession().zone.value = 'Europe/Lisbon'

const version = (number: number, live = false) => ({
  number,
  live,
  madeAt: '2026-11-24T10:00:00Z',
  yaml: `bridge: b\nname: Version ${number}`,
})

async function whole(answers: Record<string, unknown> = {}) {
  const asked = serve({
    'POST /desk/document': { yaml: 'bridge: b\n' },
    'POST /desk/imported': { document: '{"bridge":"b","name":"typed"}' },
    'POST /differences': [{ part: 'Title', before: 'First', after: 'Second' }],
    'GET /desk/versions/b': [version(2, true), version(1)],
    ...answers,
  })
  const view = mount(WholeDocument, { props: { id: 'b', text: '{"bridge":"b"}' } })
  await flushPromises()
  return { view, asked }
}

beforeEach(() => vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] }))
afterEach(() => vi.useRealTimers())

describe('the whole document', () => {
  it('counts once it can be read, after a pause', async () => {
    const { view } = await whole()
    await view.get('textarea').setValue('bridge: b\nname: typed')
    expect(view.emitted('change')).toBeUndefined()
    await vi.advanceTimersByTimeAsync(400)
    await flushPromises()
    expect(view.emitted('change')).toEqual([[{ bridge: 'b', name: 'typed' }]])
  })

  it('that cannot be read stays on the screen with its fault', async () => {
    const { view } = await whole({ 'POST /desk/imported': refusal('Line 2: a key is doubled.') })
    await view.get('textarea').setValue('name: a\nname: b')
    await vi.advanceTimersByTimeAsync(400)
    await flushPromises()
    await view.get('textarea').trigger('blur')
    expect(view.get('.bad').text()).toBe(
      'Not kept while it cannot be read: Line 2: a key is doubled.',
    )
    expect((view.get('textarea').element as HTMLTextAreaElement).value).toBe('name: a\nname: b')
    expect(view.emitted('change')).toBeUndefined()
  })

  it('of an earlier version is compared with the draft and brought back', async () => {
    const { view, asked } = await whole()
    await view.get('[aria-label="An earlier version"]').setValue('1')
    await flushPromises()
    const earlier = view.get('[aria-label="Version 1"]')
    expect(earlier.text()).toContain('First')
    expect(earlier.text()).toContain('Second')
    await earlier
      .findAll('button')
      .find((one) => one.text() === 'Bring it back')!
      .trigger('click')
    await flushPromises()
    expect(asked.at(-1)!.body).toEqual({ yaml: version(1).yaml })
    expect(view.emitted('change')).toHaveLength(1)
    expect(view.get('[role="status"]').text()).toContain('This is version 1 now, as a draft.')
  })

  it('is copied as it is shown', async () => {
    const { view } = await whole()
    const writeText = vi.fn().mockResolvedValue(undefined)
    vi.stubGlobal('navigator', { clipboard: { writeText } })
    await view.findAll('button')[0]!.trigger('click')
    await flushPromises()
    expect(writeText).toHaveBeenCalledWith('bridge: b\n')
    expect(view.get('[role="status"]').text()).toBe('Copied.')
  })
})
