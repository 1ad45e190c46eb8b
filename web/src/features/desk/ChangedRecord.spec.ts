import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import ChangedRecord from './ChangedRecord.vue'
import type { ArrivingGroup } from './api'

const field = (address: string, name: string, type = 'text') => ({ address, name, type })
const ARRIVING = [
  { title: 'comes with the event', fields: [field('/labels', 'labels', 'list of text')] },
  {
    title: 'task',
    fields: [field('job/id', 'id of the task'), field('job/record', 'record it was made of')],
  },
] as ArrivingGroup[]
const TO = { system: 'desk', collection: 'tickets', record: 'job/id' }

describe('which record is changed', () => {
  it('is told by one value of what arrives or is looked up', async () => {
    const view = mount(ChangedRecord, {
      props: { to: TO, record: 'ticket', arriving: ARRIVING },
    })
    expect(view.text()).toContain('Changes the ticket whose id is')
    expect(view.findAll('option').map((one) => one.text())).toEqual([
      'id of the task',
      'record it was made of',
    ])
    expect(view.findAll('optgroup').map((one) => one.attributes('label'))).toEqual(['task'])
    await view.get('select').setValue('job/record')
    expect(view.emitted('change')!.at(-1)).toEqual([{ ...TO, record: 'job/record' }])
  })

  it('shows what is not there any more as it stands, and asks where nothing stands', async () => {
    const view = mount(ChangedRecord, {
      props: { to: { ...TO, record: 'gone/id' }, record: 'ticket', arriving: ARRIVING },
    })
    expect(view.get('option').text()).toBe('gone/id')
    await view.setProps({ to: { ...TO, record: '' } })
    expect(view.get('option').text()).toBe('choose…')
  })
})
