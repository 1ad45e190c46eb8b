import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { arriving, language, sample } from '@/test/desk'
import CeilingEditor from './CeilingEditor.vue'
import MatchEditor from './MatchEditor.vue'
import ValuesEditor from './ValuesEditor.vue'

describe('the match key', () => {
  const editor = (match: string[], keys: string[]) =>
    mount(MatchEditor, {
      props: { match, arriving, samples: keys.map((key, i) => sample(String(i), { key })) },
    })

  it.each([
    [['a', 'b'], 'no two of these events are about the same thing'],
    [['a', 'a', 'b'], '2 of these events are about one thing'],
    [['a', 'a', 'b', 'b', 'b', ''], '5 of these events are about 2 things'],
  ])('tells which events would be the same thing: %j', (keys, words) => {
    expect(editor(['/submission'], keys).text()).toContain(words)
  })

  it('grows and shrinks, and never loses its last part', async () => {
    const two = editor(['/submission', 'report/place'], [])
    expect(two.text().replace(/\s+/g, ' ')).toContain('are the same')
    await two.get('[aria-label="Leave place out of the match key"]').trigger('click')
    expect(two.emitted('change')).toEqual([[['/submission']]])
    const one = editor(['/submission'], [])
    expect(one.findAll('.part button')).toHaveLength(0)
    await one.get('[aria-label="Add to the key"]').setValue('place')
    await one.get('[aria-label="Add to the key"]').trigger('keydown.enter')
    expect(one.emitted('change')).toEqual([[['/submission', 'report/place']]])
  })
})

describe('the ceiling', () => {
  it('keeps a span that is none of the usual ones', async () => {
    const view = mount(CeilingEditor, { props: { ceiling: { creates: '5', per: 'PT3H' } } })
    expect((view.get('select').element as HTMLSelectElement).value).toBe('PT3H')
    await view.get('input').setValue('12')
    expect(view.emitted('change')).toEqual([[{ creates: '12', per: 'PT3H' }]])
  })

  it('is for an hour if nobody says more, and gone when nothing is stated', async () => {
    const view = mount(CeilingEditor, { props: { ceiling: undefined } })
    await view.get('[aria-label="How many messages"]').setValue('9')
    expect(view.emitted('change')).toEqual([[{ messages: '9', per: 'PT1H' }]])
    await view.setProps({ ceiling: { messages: '9', per: 'PT1H' } })
    await view.get('[aria-label="How many messages"]').setValue('')
    expect(view.emitted('change')?.[1]).toEqual([undefined])
  })
})

describe('named values', () => {
  const editor = (values: Record<string, string> | undefined) =>
    mount(ValuesEditor, {
      props: {
        values,
        found: [{ name: 'place', type: 'text', start: '', steps: [], value: 'Palm', problem: '' }],
        arriving,
        language,
        problems: [{ path: 'values/place', message: 'It reads itself.' }],
      },
    })

  it('are named in small letters, once each', async () => {
    const view = editor({ place: 'report/place' })
    const add = async (text: string) => {
      await view.get('form input').setValue(text)
      await view.get('form').trigger('submit')
    }
    await add('  The Opening Day ')
    expect(view.emitted('change')).toEqual([
      [{ place: 'report/place', 'the-opening-day': { text: '' } }],
    ])
    await add('Place')
    expect(view.emitted('change')).toHaveLength(1)
  })

  it('show their fault at their place', () => {
    expect(editor({ place: 'report/place' }).get('.problem').text()).toBe('It reads itself.')
  })

  it('leave no empty group behind', async () => {
    const view = editor({ place: 'report/place' })
    await view.get('.head').trigger('click')
    await view
      .findAll('button')
      .find((one) => one.text() === 'Remove the rule')!
      .trigger('click')
    expect(view.emitted('change')!.at(-1)).toEqual([undefined])
  })
})
