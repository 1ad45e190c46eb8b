import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import { refusal, serve } from '@/test/desk'
import { useDraft } from './useDraft'

const kept = (revision: number, document: object = { name: 'Report' }) => ({
  id: 'b',
  document: JSON.stringify(document),
  revision,
  liveVersion: 1,
  changedAt: null,
})

function atTheDesk() {
  let draft!: ReturnType<typeof useDraft>
  const view = mount(
    defineComponent({
      setup() {
        draft = useDraft('b')
        return () => h('div')
      },
    }),
  )
  return { draft, view }
}

async function loaded(answers: Record<string, unknown>) {
  const asked = serve({ 'GET /drafts/b': kept(3), ...answers })
  const { draft, view } = atTheDesk()
  await draft.load()
  return { asked, draft, view }
}

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

describe('a draft', () => {
  it('keeps itself once typing pauses, with the revision it began from', async () => {
    const { asked, draft } = await loaded({ 'PUT /drafts/b': kept(4) })
    draft.change({ name: 'R' })
    draft.change({ name: 'Re' })
    expect(draft.state.value).toBe('typing')
    await vi.advanceTimersByTimeAsync(600)
    const puts = asked.filter((one) => one.key.startsWith('PUT'))
    expect(puts).toHaveLength(1)
    expect(puts[0]!.body).toEqual({ document: '{"name":"Re"}', revision: 3 })
    expect(draft.state.value).toBe('kept')
    expect(draft.revision.value).toBe(4)
  })

  it('is undone and redone step by step, and a new change ends the redo', async () => {
    const { draft } = await loaded({ 'PUT /drafts/b': kept(4) })
    draft.change({ name: 'one' })
    draft.change({ name: 'two' })
    draft.undo()
    expect(draft.doc.value).toEqual({ name: 'one' })
    draft.undo()
    expect(draft.doc.value).toEqual({ name: 'Report' })
    expect(draft.canUndo.value).toBe(false)
    draft.redo()
    expect(draft.doc.value).toEqual({ name: 'one' })
    draft.change({ name: 'three' })
    expect(draft.canRedo.value).toBe(false)
  })

  it('does not count a change that changes nothing', async () => {
    const { draft } = await loaded({})
    draft.change({ name: 'Report' })
    expect(draft.canUndo.value).toBe(false)
    expect(draft.state.value).toBe('kept')
  })

  it('tells a conflict from another failure, and keeps what was typed', async () => {
    const { draft } = await loaded({ 'PUT /drafts/b': refusal('Someone else changed it.', 409) })
    draft.change({ name: 'mine' })
    await vi.advanceTimersByTimeAsync(600)
    expect(draft.state.value).toBe('conflict')
    expect(draft.error.value).toBe('Someone else changed it.')
    expect(draft.doc.value).toEqual({ name: 'mine' })

    const other = await loaded({ 'PUT /drafts/b': refusal('The disk is full.', 500) })
    other.draft.change({ name: 'mine' })
    await vi.advanceTimersByTimeAsync(600)
    expect(other.draft.state.value).toBe('failed')
  })

  it('saves one after the other, so that it never conflicts with itself', async () => {
    let release!: (answer: Response) => void
    const slow = new Promise<Response>((go) => (release = go))
    const { draft } = await loaded({})
    const revisions: number[] = []
    vi.stubGlobal('fetch', (_: string, how: RequestInit) => {
      const body = JSON.parse(String(how.body)) as { revision: number; document: string }
      revisions.push(body.revision)
      return revisions.length === 1
        ? slow
        : Promise.resolve(
            new Response(JSON.stringify(kept(5, JSON.parse(body.document) as object))),
          )
    })
    draft.change({ name: 'one' })
    await vi.advanceTimersByTimeAsync(600)
    draft.change({ name: 'two' })
    await vi.advanceTimersByTimeAsync(600)
    expect(revisions).toEqual([3])
    release(new Response(JSON.stringify(kept(4, { name: 'one' }))))
    await vi.advanceTimersByTimeAsync(600)
    expect(revisions).toEqual([3, 4])
    expect(draft.state.value).toBe('kept')
    expect(draft.doc.value).toEqual({ name: 'two' })
  })

  it('that could not be kept is sent once more when the page goes', async () => {
    const { draft, view } = await loaded({ 'PUT /drafts/b': refusal('The disk is full.', 503) })
    draft.change({ name: 'last words' })
    await vi.advanceTimersByTimeAsync(600)
    expect(draft.state.value).toBe('failed')
    const asked = serve({ 'PUT /drafts/b': kept(4) })
    view.unmount()
    await flushPromises()
    expect(asked.at(-1)!.body).toEqual({ document: '{"name":"last words"}', revision: 3 })
  })

  it('does not go live while it conflicts', async () => {
    const { asked, draft } = await loaded({
      'PUT /drafts/b': refusal('Someone else changed it.', 409),
    })
    draft.change({ name: 'mine' })
    await vi.advanceTimersByTimeAsync(600)
    expect(await draft.putToWork(false)).toBe(false)
    expect(asked.every((one) => !one.key.startsWith('POST'))).toBe(true)
  })

  it('is kept when the page goes', async () => {
    const { asked, draft, view } = await loaded({ 'PUT /drafts/b': kept(4) })
    draft.change({ name: 'last words' })
    view.unmount()
    await flushPromises()
    expect(asked.at(-1)!.body).toEqual({ document: '{"name":"last words"}', revision: 3 })
  })

  it('goes live only after it is kept, and says why when it does not', async () => {
    const { asked, draft } = await loaded({
      'PUT /drafts/b': kept(4),
      'POST /live?acceptExamples=true': undefined,
    })
    draft.change({ name: 'ready' })
    expect(await draft.putToWork(true)).toBe(true)
    expect(asked.map((one) => one.key.split(' ')[0])).toEqual(['GET', 'PUT', 'POST', 'GET'])
    expect(draft.canUndo.value).toBe(false)

    const refused = await loaded({ 'POST /live': refusal('An example does not hold.') })
    expect(await refused.draft.putToWork(false)).toBe(false)
    expect(refused.draft.error.value).toBe('An example does not hold.')
  })

  it('that is given up shows the live version again', async () => {
    const { asked, draft } = await loaded({ 'DELETE /drafts/b': undefined })
    await draft.drop()
    expect(asked.map((one) => one.key.split(' ')[0])).toEqual(['GET', 'DELETE', 'GET'])
  })
})
