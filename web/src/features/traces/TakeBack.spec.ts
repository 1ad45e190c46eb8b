import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { refusal, serve } from '@/test/desk'
import TakeBack from './TakeBack.vue'

describe('taking a task back', () => {
  it('asks once more when someone worked on it since', async () => {
    const why = 'Someone changed task gb-1 at Grounds Board since it was made.'
    serve({ 'POST evenIfTouched=false': refusal(why, 409), 'POST evenIfTouched=true': undefined })
    const view = mount(TakeBack, { props: { trace: 't' } })
    await view.get('button').trigger('click')
    await flushPromises()
    expect(view.emitted('refused')).toEqual([[why]])
    expect(view.get('button').text()).toBe('Take it back all the same')
    await view.get('button').trigger('click')
    await flushPromises()
    expect(view.emitted('refused')!.at(-1)).toEqual([''])
    expect(view.emitted('done')).toHaveLength(2)
  })
})
