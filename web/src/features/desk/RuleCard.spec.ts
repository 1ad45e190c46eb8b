import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { arriving, language, leavingField } from '@/test/desk'
import { useSession } from '@/shared/composables/session'
import RuleCard from './RuleCard.vue'
import type { LeavingField } from './api'
import type { Tree } from './tree'

useSession().zone.value = 'Europe/Lisbon'

function card(rule: Tree | undefined, part: Partial<LeavingField> = {}) {
  const field = leavingField('title', part)
  const view = mount(RuleCard, {
    props: { field, rule, arriving, language, open: true },
    attachTo: document.body,
  })
  const last = () => view.emitted('change')!.at(-1)![0]
  const by = (label: string) => view.get(`[aria-label="${label}"]`)
  return { view, last, by }
}

const PEOPLE = { 'bu-11': 'Paths crew', 'bu-12': 'Tree crew' }

describe('a rule', () => {
  it('reads as a sentence in the names of its fields, with its value at the end', () => {
    const { view } = card(
      { text: '{report/place}: {report/danger}', steps: ['trim'] },
      {
        shown: 'Palm walk: 4',
        steps: [
          { sentence: 'without the white space around it', value: 'Palm walk: 4', problem: '' },
        ],
      },
    )
    expect(view.get('.line').text()).toBe(
      '‹place›: ‹how dangerous›, without the white space around it',
    )
    expect(view.get('.now').text()).toBe('Palm walk: 4')
  })

  it('shows a fault at its place instead of a value', () => {
    const { view } = card('report/place', { problem: 'A day is wanted, found a text.', shown: '' })
    expect(view.get('.problem').text()).toBe('A day is wanted, found a text.')
    expect(view.get('.now').text()).toBe('✕')
  })

  it('starts from another field and keeps its steps', async () => {
    const { last, by } = card({ value: 'report/place', steps: ['trim'] })
    await by('The field').setValue('report/danger')
    expect(last()).toEqual({ value: 'report/danger', steps: ['trim'] })
  })

  it('offers the names of a choice, never its keys', async () => {
    const { view, last, by } = card({ always: 'bu-11' }, { type: 'person', names: PEOPLE })
    expect(view.get('.line').text()).toBe('always Paths crew')
    expect(
      by('The value')
        .findAll('option')
        .map((one) => one.text()),
    ).toEqual(['Paths crew', 'Tree crew'])
    await by('The value').setValue('bu-12')
    expect(last()).toEqual({ always: 'bu-12' })
  })

  it('ticks several named values, in the order of the target', async () => {
    const { view, last } = card({ always: ['bu-12'] }, { type: 'list of person', names: PEOPLE })
    await view.findAll('input[type="checkbox"]')[0]!.setValue(true)
    expect(last()).toEqual({ always: ['bu-11', 'bu-12'] })
  })

  it('takes a field from what arrives, in place or into its text', () => {
    const whole = card({ value: '' })
    whole.view
      .findAll('button')
      .find((one) => one.text() === 'Pick from arriving')!
      .trigger('click')
    const take = whole.view.emitted('pick')![0]![0] as (address: string) => void
    take('report/place')
    expect(whole.last()).toEqual({ value: 'report/place' })

    const text = card({ text: 'At ' })
    text.view
      .findAll('button')
      .find((one) => one.text() === 'Pick from arriving')!
      .trigger('click')
    ;(text.view.emitted('pick')![0]![0] as (address: string) => void)('report/place')
    expect(text.last()).toEqual({ text: 'At {report/place}' })
  })

  it('moves and removes its steps by keys', async () => {
    const { view, last } = card({ value: 'report/place', steps: ['trim', { case: 'upper' }] })
    const steps = view.findAll('.say')
    await steps[1]!.trigger('keydown', { key: 'ArrowUp', altKey: true })
    expect(last()).toEqual({ value: 'report/place', steps: [{ case: 'upper' }, 'trim'] })
    const before = view.emitted('change')!.length
    await steps[0]!.trigger('keydown', { key: 'Backspace' })
    expect(view.emitted('change')).toHaveLength(before)
    await steps[0]!.trigger('keydown', { key: 'Delete' })
    expect(last()).toEqual({ value: 'report/place', steps: [{ case: 'upper' }] })
  })

  it('adds a step as it can stand: with its first word, or by its name alone', async () => {
    const { view, last } = card('report/place')
    const box = view.get('[aria-label="Add a step"]')
    await box.setValue('case')
    await box.trigger('keydown.enter')
    expect(last()).toEqual({ value: 'report/place', steps: [{ case: 'upper' }] })
    await box.setValue('trim')
    await box.trigger('keydown.enter')
    expect(last()).toEqual({ value: 'report/place', steps: ['trim'] })
  })

  it('shows the document as an undo leaves it, not as it was typed before', async () => {
    const { view } = card({ cases: [] })
    const area = () => (view.get('textarea').element as HTMLTextAreaElement).value
    await view.get('textarea').setValue('{"cases": [{"then": "x"}]}')
    await view.setProps({ rule: { cases: [{ then: 'x' }] } })
    expect(area()).toBe('{"cases": [{"then": "x"}]}')
    await view.setProps({ rule: { cases: [] } })
    expect(JSON.parse(area())).toEqual({ cases: [] })
  })

  it('keeps the step open that was opened, though one before it is removed', async () => {
    const { view } = card({ value: 'report/place', steps: ['trim', { case: 'upper' }] })
    await view.findAll('.say')[1]!.trigger('click')
    await view.findAll('.x')[0]!.trigger('click')
    await view.setProps({ rule: { value: 'report/place', steps: [{ case: 'upper' }] } })
    expect(view.findAll('.say')[0]!.attributes('aria-expanded')).toBe('true')
  })

  it('is edited as its document where no control fits, and keeps what is half typed', async () => {
    const { view, last } = card({ cases: [] })
    await view.get('textarea').setValue('{"cases": [{"then": "x"}]}')
    expect(last()).toEqual({ cases: [{ then: 'x' }] })
    const before = view.emitted('change')!.length
    await view.get('textarea').setValue('{"cases": [')
    expect(view.emitted('change')).toHaveLength(before)
    expect((view.get('textarea').element as HTMLTextAreaElement).value).toBe('{"cases": [')
    expect(view.findAll('.problem').at(-1)!.text()).not.toBe('')
  })
})
