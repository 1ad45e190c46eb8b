import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { refusal, serve } from '@/test/desk'
import TableDialog from './TableDialog.vue'
import type { UnknownKey } from './api'

const view = {
  table: { name: 'Places → crews', keys: ['place'] },
  columns: ['place', 'crew'],
  rows: [['fern gully', 'bu-12']],
  unknown: [{ keys: ['Palm walk'] }],
}

async function dialog(kept: unknown = view) {
  const asked = serve({ 'GET /api/tables/crews': view, 'PUT /api/tables/crews/rows': kept })
  const made = mount(TableDialog, {
    props: {
      table: 'crews',
      unknown: [{ table: 'crews', keys: ['Rose "A"'] }] as unknown as UnknownKey[],
      names: { 'bu-12': 'Tree crew' },
    },
  })
  await flushPromises()
  const act = (text: string) => made.findAll('button').find((one) => one.text() === text)!
  return { made, asked, act }
}

describe('a reference table at the desk', () => {
  it('offers the keys that were asked in vain, once each', async () => {
    const { made, act } = await dialog()
    await act('Add “Palm walk”').trigger('click')
    expect(made.findAll('tbody tr')).toHaveLength(2)
    expect(act('Add “Palm walk”')).toBeUndefined()
  })

  it('says what people call a key', async () => {
    expect((await dialog()).made.get('.called').text()).toBe('Tree crew')
  })

  it('is kept as CSV with every row, quotes and all', async () => {
    const { made, asked, act } = await dialog()
    await act('Add “Rose "A"”').trigger('click')
    await made.get('[aria-label="crew of row 2"]').setValue('bu-12')
    await act('Keep the rows').trigger('click')
    await flushPromises()
    expect(asked.at(-1)!.body).toBe(
      '"place","crew"\r\n"fern gully","bu-12"\r\n"Rose ""A""","bu-12"\r\n',
    )
    expect(made.emitted('kept')).toHaveLength(1)
  })

  it('stays open with its rows when it is refused', async () => {
    const { made, act } = await dialog(refusal('Row 2 has the key of row 1.'))
    await act('Add a row').trigger('click')
    await act('Keep the rows').trigger('click')
    await flushPromises()
    expect(made.get('[role="alert"]').text()).toBe('Row 2 has the key of row 1.')
    expect(made.findAll('tbody tr')).toHaveLength(2)
    expect(made.emitted('kept')).toBeUndefined()
  })
})
