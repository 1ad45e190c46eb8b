import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { language, leavingField } from '@/test/desk'
import ThenEditor from './ThenEditor.vue'
import type { AfterView, PlaceView } from './api'
import type { Group } from './tree'

const place = (system: string, collection: string, record: string, over = {}) =>
  ({
    system,
    systemName: system,
    collection,
    name: collection,
    record,
    hindrance: '',
    ...over,
  }) as PlaceView
const back: AfterView = {
  name: 'back',
  what: 'the record that it came from is changed',
  done: true,
  because: '',
  problem: '',
  fields: [leavingField('job'), leavingField('page', { ruled: false, type: 'link' })],
}
const THEN: Group = { back: { to: 'record', fields: { job: 'made/id' } } }

function editor(over: Record<string, unknown> = {}) {
  const view = mount(ThenEditor, {
    props: {
      then: THEN,
      found: [back],
      arriving: [],
      language,
      source: place('desk', 'tickets', 'ticket', { changes: true }),
      places: [place('chat', 'messages', 'message'), place('old', 'x', 'x', { hindrance: 'no' })],
      oneTask: true,
      ...over,
    },
    attachTo: document.body,
  })
  const choices = async (label: string) => {
    await view.get(`input[aria-label="${label}"]`).trigger('focus')
    return view.findAll(`ul[aria-label="${label}"] [role="option"]`)
  }
  return { view, choices, changed: () => view.emitted('change')!.at(-1)![0] as Group }
}

describe('what comes then', () => {
  it('changes the record it came from, or makes something in a place that can be used', async () => {
    const { choices, changed } = editor({ then: undefined, found: [] })
    const offered = await choices('Add what comes then')
    expect(offered.map((one) => one.text().replace(/\s+/g, ' '))).toEqual([
      expect.stringContaining('change the ticket it came from'),
      expect.stringContaining('make a message at chat'),
    ])
    await offered[1]!.trigger('mousedown')
    expect(changed()).toEqual({
      message: { to: { system: 'chat', collection: 'messages' }, fields: {} },
    })
  })

  it('changes a record elsewhere that is there, once it is said which', async () => {
    const { choices, changed, view } = editor({
      then: undefined,
      found: [],
      places: [place('desk', 'tickets', 'ticket', { changes: true, hindrance: 'not made' })],
      arriving: [
        { title: 'task', fields: [{ address: 'job/record', name: 'its record', type: 'text' }] },
      ],
    })
    const offered = await choices('Add what comes then')
    const last = offered.at(-1)!
    expect(last.text()).toContain('change a ticket at desk')
    await last.trigger('mousedown')
    const to = { system: 'desk', collection: 'tickets', record: '' }
    expect(changed()).toEqual({ ticket: { to, fields: {} } })
    await view.setProps({ then: changed() })
    await view.get('select[aria-label="What holds the id of the ticket"]').setValue('job/record')
    expect(changed()).toEqual({ ticket: { to: { ...to, record: 'job/record' }, fields: {} } })
  })

  it('offers no change of a record that cannot be changed', async () => {
    const { choices } = editor({ source: place('desk', 'tickets', 'ticket', { changes: false }) })
    const offered = await choices('Add what comes then')
    expect(offered.some((one) => one.text().includes('it came from'))).toBe(false)
  })

  it('gets rules for its own fields, which keep the others', async () => {
    const { choices, changed } = editor()
    const offered = await choices('Add a field')
    await offered[0]!.trigger('mousedown')
    expect(changed()).toEqual({
      back: { to: 'record', fields: { job: 'made/id', page: { value: '' } } },
    })
  })

  it('is left out with one press, and nothing stays of it', async () => {
    const { view, changed } = editor()
    await view.get('button[aria-label="Leave back out"]').trigger('click')
    expect(changed()).toBeUndefined()
  })

  it('says why it is not done for the event in view', () => {
    const because = 'it was done before, and is done once'
    const { view } = editor({ found: [{ ...back, done: false, because }] })
    expect(view.text()).toContain(`Not for this event: ${because}`)
  })
})
