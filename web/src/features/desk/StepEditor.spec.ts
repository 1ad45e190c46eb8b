import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { language } from '@/test/desk'
import StepEditor from './StepEditor.vue'
import type { Tree } from './tree'

function editor(step: Tree) {
  const view = mount(StepEditor, { props: { step, language } })
  return { view, last: () => view.emitted('change')!.at(-1)![0] }
}

describe('the options of a step', () => {
  it('offer the words that there are, and write the one that stands by itself so', async () => {
    const { view, last } = editor({ case: 'upper' })
    expect(view.findAll('option').map((one) => one.text())).toEqual(['upper', 'lower'])
    await view.get('select').setValue('lower')
    expect(last()).toEqual({ case: 'lower' })
  })

  it('offer the tables, and lead to the rows of the one that is chosen', async () => {
    const { view, last } = editor({ 'look-up': { table: 'crews' } })
    await view.get('button').trigger('click')
    expect(view.emitted('table')).toEqual([['crews']])
    await view.get('select').setValue('wings')
    expect(last()).toEqual({ 'look-up': { table: 'wings' } })
    await view.findAll('input').at(-1)!.setValue('phone')
    expect(last()).toEqual({ 'look-up': { table: 'crews', take: 'phone' } })
  })

  it('take bands a line each', async () => {
    const { view, last } = editor({ bands: { '8..10': '1' } })
    const lines = view.get('textarea')
    expect((lines.element as HTMLTextAreaElement).value).toBe('8..10: 1')
    await lines.setValue('8..10: 1\n5..<8: 3')
    expect(last()).toEqual({ bands: { '8..10': '1', '5..<8': '3' } })
  })

  it('change how items are tested and keep with what', async () => {
    const { view, last } = editor({ 'keep-where': { equal: '5' } })
    await view.get('select').setValue('at-least')
    expect(last()).toEqual({ 'keep-where': { 'at-least': '5' } })
    await view.get('select').setValue('is')
    expect(last()).toEqual({ 'keep-where': { is: 'present' } })
  })
})
