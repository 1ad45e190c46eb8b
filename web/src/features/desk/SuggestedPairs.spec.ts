import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { refusal, serve } from '@/test/desk'
import SuggestedPairs from './SuggestedPairs.vue'

const due = {
  field: 'due',
  fieldName: 'Due',
  source: 'seen on',
  steps: ['read as a day', 'at 17:00 in Lisbon'],
  because: '38 of 40 values fit',
  rule: '{"value":"report/seenOn","steps":["read-day"]}',
}
const start = { ...due, field: 'start', fieldName: 'Start' }

async function pairs(answer: unknown, open = ['due', 'start']) {
  const asked = serve({ 'POST /suggestions': answer })
  const view = mount(SuggestedPairs, { props: { id: 'b', text: '{}', open } })
  await flushPromises()
  return { view, asked, text: () => view.text().replace(/\s+/g, ' ') }
}

describe('likely field pairs', () => {
  it('say what would be done and why, and are taken only when told', async () => {
    const { view, text } = await pairs([due])
    expect(text()).toContain(
      'Perhaps Due is seen on, read as a day, at 17:00 in Lisbon: 38 of 40 values fit',
    )
    expect(view.emitted('take')).toBeUndefined()
    await view.get('button').trigger('click')
    expect(view.emitted('take')).toEqual([['due', { value: 'report/seenOn', steps: ['read-day'] }]])
  })

  it('go away for a field that got a rule meanwhile', async () => {
    const { view } = await pairs([due, start])
    expect(view.findAll('.pair')).toHaveLength(2)
    await view.setProps({ open: ['start'] })
    expect(view.findAll('.pair')).toHaveLength(1)
    expect(view.text()).toContain('Start')
  })

  it('are asked for again only when other fields are open, not at every key', async () => {
    const { view, asked } = await pairs([due])
    await view.setProps({ text: '{"name":"x"}', open: ['due', 'start'] })
    await flushPromises()
    expect(asked).toHaveLength(1)
    await view.setProps({ open: ['due'] })
    await flushPromises()
    expect(asked).toHaveLength(2)
  })

  it('are not asked for when every field has a rule', async () => {
    expect((await pairs([], [])).asked).toHaveLength(0)
  })

  it('that cannot be found say why', async () => {
    expect((await pairs(refusal('The source does not answer.'))).text()).toBe(
      'The source does not answer.',
    )
  })
})
