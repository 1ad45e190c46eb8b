import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { arriving, arrivingField } from '@/test/desk'
import ArrivingShore from './ArrivingShore.vue'

const twins = {
  title: 'comes with the event',
  fields: [
    arrivingField('/opens', {
      value: '2026-11-24',
      alike: [{ address: '/opened', name: 'opened', value: '2026-11-20', differs: 7 }],
    }),
    arrivingField('/guests', { items: ['Ana', 'Rui'], type: 'list of text' }),
  ],
}

function shore(groups = arriving, picking = false) {
  return mount(ArrivingShore, {
    props: {
      groups,
      goesTo: { 'report/place': [{ key: 'title', name: 'Title' }] },
      samples: 9,
      picking,
    },
  })
}
const names = (view: ReturnType<typeof shore>) =>
  view.findAll('.field .name').map((one) => one.text().split(' ')[0])

describe('what arrives', () => {
  it('is found by a name, by the value in view and by values of other events', async () => {
    const view = shore()
    for (const [word, found] of [
      ['dangerous', ['how']],
      ['PALM', ['place']],
      ['9', ['how']],
      ['nowhere', []],
    ] as const) {
      await view.get('input').setValue(word)
      expect(names(view)).toEqual(found)
    }
  })

  it('says how often a field is filled', () => {
    const shares = shore()
      .findAll('.share')
      .map((one) => one.text())
    expect(shares.slice(0, 2)).toEqual(['always filled', 'filled in 2 of 3'])
  })

  it('tells a field from the one it is easily taken for, by their values', async () => {
    const view = shore([twins])
    expect(view.get('.share').text()).toContain('easily taken for another')
    await view.get('.field').trigger('click')
    expect(view.get('.alike').text().replace(/\s+/g, ' ')).toContain(
      'Not opened (2026-11-20), which holds something else in 7 of 9',
    )
  })

  it('opens a list', async () => {
    const view = shore([twins])
    await view.findAll('.field')[1]!.trigger('click')
    expect(view.findAll('.items li').map((one) => one.text())).toEqual(['Ana', 'Rui'])
  })

  it('leads to the rule that a field goes to', async () => {
    const view = shore()
    await view.findAll('.field')[1]!.trigger('click')
    await view.get('.to').trigger('click')
    expect(view.emitted('show')).toEqual([['title']])
  })

  it('gives a field to the rule that asks for one', async () => {
    const view = shore(arriving, true)
    expect(view.get('[role="status"]').text()).toContain('Choose the field')
    await view.findAll('.field')[1]!.trigger('click')
    expect(view.emitted('pick')).toEqual([['report/place']])
  })
})
