import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import EveryEditor from './EveryEditor.vue'
import type { PlaceView } from './api'

const place = { systemName: 'Friends Register', everySeconds: 300 } as PlaceView
const START = { system: 'friends-register', collection: 'pledges' }

function editor(every?: string) {
  const from = every === undefined ? START : { ...START, every }
  const view = mount(EveryEditor, { props: { from, place } })
  const select = view.get('select')
  return { view, select, last: () => view.emitted('change')!.at(-1)![0] }
}

describe('how often a source is asked', () => {
  it('is what its description says until a bridge says otherwise', async () => {
    const { select, last } = editor()
    expect(select.findAll('option')[0]!.text()).toBe('5 min, as its description says')
    await select.setValue('PT1M')
    expect(last()).toEqual({ ...START, every: 'PT1M' })
  })

  it('goes back to the description and leaves nothing behind', async () => {
    const { select, last } = editor('PT1M')
    await select.setValue('')
    expect(last()).toEqual(START)
  })

  it('keeps a span that is none of the usual ones', () => {
    expect((editor('PT7M').select.element as HTMLSelectElement).value).toBe('PT7M')
  })
})
