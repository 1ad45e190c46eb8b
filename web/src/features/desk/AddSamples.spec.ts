import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { arriving, refusal, serve } from '@/test/desk'
import AddSamples from './AddSamples.vue'

async function dialog(answer: unknown = { ids: ['s1', 's2'] }) {
  const asked = serve({ 'POST /samples': answer })
  const view = mount(AddSamples, { props: { id: 'b', text: '{"d":1}', arriving } })
  const act = (text: string) => view.findAll('button').find((one) => one.text() === text)!
  return { view, asked, act }
}

describe('adding events', () => {
  it('sends what was pasted as it stands, with the draft it belongs to', async () => {
    const { view, asked, act } = await dialog()
    expect(act('Add').attributes('disabled')).toBeDefined()
    await view.get('textarea').setValue('{"a":1}\n{"a":2}')
    await act('Add').trigger('click')
    await flushPromises()
    expect(asked[0]!.body).toEqual({ document: '{"d":1}', text: '{"a":1}\n{"a":2}' })
    expect(view.emitted('added')).toEqual([[['s1', 's2']]])
  })

  it('takes a file to look at before it is added', async () => {
    const { view, asked } = await dialog()
    const input = view.get('input[type="file"]')
    Object.defineProperty(input.element, 'files', {
      value: [{ text: () => Promise.resolve('[{"a":1}]') }],
    })
    await input.trigger('change')
    await flushPromises()
    expect((view.get('textarea').element as HTMLTextAreaElement).value).toBe('[{"a":1}]')
    expect(asked).toHaveLength(0)
  })

  it('by hand begins with the values in view', async () => {
    const { view, asked, act } = await dialog()
    await view.get('input[value="hand"]').setValue()
    const field = view.get('.hand input')
    expect((field.element as HTMLInputElement).value).toBe('vd-1')
    await field.setValue('vd-2')
    await act('Add').trigger('click')
    await flushPromises()
    expect(asked[0]!.body).toMatchObject({ text: '{"submission":"vd-2"}' })
  })

  it('that is refused stays open with its text', async () => {
    const { view, act } = await dialog(refusal('Line 2 cannot be read.'))
    await view.get('textarea').setValue('{"a":1}\n{')
    await act('Add').trigger('click')
    await flushPromises()
    expect(view.get('[role="alert"]').text()).toBe('Line 2 cannot be read.')
    expect((view.get('textarea').element as HTMLTextAreaElement).value).toBe('{"a":1}\n{')
    expect(view.emitted('added')).toBeUndefined()
  })
})
