import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import OwnWrites from './OwnWrites.vue'
import TaskGone from './TaskGone.vue'
import type { PlaceView } from './api'

const place = { systemName: 'Grounds Board', record: 'task' } as PlaceView
const PLACE = { system: 'grounds-board', collection: 'society' }

describe('what a bridge says about the ends of its way', () => {
  it('asks a person about a removed task unless something else is chosen', async () => {
    const view = mount(TaskGone, { props: { to: PLACE, place } })
    const select = view.get('select')
    expect((select.element as HTMLSelectElement).value).toBe('ask')
    await select.setValue('make-anew')
    expect(view.emitted('change')!.at(-1)).toEqual([{ ...PLACE, 'if-gone': 'make-anew' }])
    await view.setProps({ to: { ...PLACE, 'if-gone': 'leave' } })
    expect((select.element as HTMLSelectElement).value).toBe('leave')
    await select.setValue('ask')
    expect(view.emitted('change')!.at(-1)).toEqual([PLACE])
  })

  it('hears of own writing only where that is ticked', async () => {
    const view = mount(OwnWrites, { props: { from: PLACE, place } })
    await view.get('input').setValue(true)
    expect(view.emitted('change')!.at(-1)).toEqual([{ ...PLACE, 'own-writes': 'true' }])
    await view.setProps({ from: { ...PLACE, 'own-writes': 'true' } })
    await view.get('input').setValue(false)
    expect(view.emitted('change')!.at(-1)).toEqual([PLACE])
  })
})
