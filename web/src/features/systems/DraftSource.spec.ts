import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { serve } from '@/test/desk'
import { BEGINNINGS } from './beginnings'
import DraftSource from './DraftSource.vue'

const drafted = {
  document: 'system: ledger',
  remarks: [{ about: '', text: 'Look.' }],
  offered: [],
}

describe('where a draft begins', () => {
  it('is an address, asked for by Enter', async () => {
    const asked = serve({ 'POST /drafts': drafted })
    const view = mount(DraftSource)
    await view.get('#openapi').setValue('https://ledger.example/openapi.json')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(asked[0]?.body).toEqual({ address: 'https://ledger.example/openapi.json' })
    expect(view.emitted('draft')).toEqual([['system: ledger', drafted.remarks]])
  })

  it('is what is chosen of many, found by typing', async () => {
    const offered = Array.from({ length: 202 }, (_, i) => ({
      id: `things-${i}`,
      path: `/v1/things/${i}`,
      can: 'list, find',
    }))
    serve({ 'POST /drafts': { document: '', remarks: [], offered } })
    const view = mount(DraftSource)
    await view.get('#openapi').setValue('https://large.example/openapi.json')
    await view.get('form').trigger('submit')
    await flushPromises()
    expect(view.emitted('draft')).toBeUndefined()
    expect(view.text()).toContain('It describes 202 collections')
    const search = view.get('input[type=search]')
    await search.setValue('things/17')
    expect(view.findAll('.choice li')).toHaveLength(11)
    await search.setValue('things-177')
    await search.trigger('keydown.enter')
    await search.setValue('v1/things/3')
    await view.get('.choice input[type=checkbox]').setValue(true)
    const asked = serve({ 'POST /drafts': drafted })
    await view.get('.choice .main').trigger('click')
    await flushPromises()
    expect(asked.at(-1)?.body).toEqual({
      address: 'https://large.example/openapi.json',
      collections: ['things-177', 'things-3'],
    })
    expect(view.emitted('draft')).toEqual([['system: ledger', drafted.remarks]])
  })

  it('is a description that is pasted', async () => {
    const asked = serve({ 'POST /drafts': drafted })
    const view = mount(DraftSource)
    const draft = () => view.findAll('button').find((one) => one.text() === 'Draft from this')!
    expect(draft().attributes()).toHaveProperty('disabled')
    await view.get('textarea').setValue('openapi: 3.1.0')
    await draft().trigger('click')
    await flushPromises()
    expect(asked[0]?.body).toEqual({ description: 'openapi: 3.1.0' })
  })

  it('is a file', async () => {
    const asked = serve({ 'POST /drafts': drafted })
    const view = mount(DraftSource)
    const input = view.get('input[type=file]')
    Object.defineProperty(input.element, 'files', {
      value: [new File(['openapi: 3.0.0'], 'api.yaml')],
    })
    await input.trigger('change')
    await flushPromises()
    await flushPromises()
    expect(asked[0]?.body).toEqual({ description: 'openapi: 3.0.0' })
  })

  it.each(BEGINNINGS.map((one) => one.title))('is by hand: %s', async (title) => {
    const view = mount(DraftSource)
    await view
      .findAll('button')
      .find((one) => one.text() === title)!
      .trigger('click')
    const [document, remarks] = view.emitted('draft')![0] as [string, unknown[]]
    expect(document).toMatch(/^system: /)
    expect(remarks).toEqual([])
  })
})
