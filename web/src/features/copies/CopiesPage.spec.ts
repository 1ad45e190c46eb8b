import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import CopiesPage from './CopiesPage.vue'
import type { Copies, Copy } from './api'

useSession().zone.value = 'Europe/Lisbon'

const copy = (id: string, more: Partial<Copy> = {}): Copy => ({
  id,
  name: `Copy ${id}`,
  version: 2,
  held: false,
  seen: `seen-${id}`,
  follows: true,
  differences: [{ part: 'Due', before: 'in 7 days', after: 'in 5 days' }],
  own: ['to/collection'],
  both: [],
  ifTaken: [],
  hindrance: '',
  ...more,
})
const copies: Copies = {
  name: 'Hazard report',
  version: 4,
  original: '',
  originalName: '',
  copies: [
    copy('north'),
    copy('south', {
      both: ['fields/notes'],
      ifTaken: [{ part: 'Notes', before: 'as it is', after: 'what the original says' }],
    }),
    copy('east', { follows: false, differences: [], own: [] }),
    copy('west', { hindrance: 'Somebody works on a draft of it' }),
  ],
}

async function page(answers: Record<string, unknown> = {}) {
  const asked = serve({
    'POST /bridges/first/copies/follow': [
      { copy: 'north', problem: '' },
      { copy: 'south', problem: 'It changed since you looked.' },
    ],
    'GET /bridges/first/copies/north/results': {
      events: 40,
      differing: 12,
      differences: ['due otherwise in 12'],
    },
    'GET /bridges/first/copies': copies,
    'DELETE /bridges/north/original': undefined,
    ...answers,
  })
  const view = mount(CopiesPage, {
    props: { id: 'first' },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  await flushPromises()
  const row = (name: string) => view.findAll('li').find((one) => one.text().includes(name))!
  const go = () => view.get('button.main')
  return { view, asked, row, go }
}

describe('the copies of a bridge', () => {
  it('says how each stands, and offers those that can follow', async () => {
    const { row, go } = await page()
    expect(row('Copy north').text()).toContain('1 part to take over')
    expect(row('Copy north').text()).toContain('Keeps its own: where its tasks go')
    expect(row('Copy south').text()).toContain('1 part changed in both')
    expect(row('Copy south').text()).toContain('what the original says')
    expect(row('Copy east').text()).toContain('as the original')
    expect(row('Copy west').text()).toContain('works on a draft')
    expect(row('Copy west').get('input').attributes('disabled')).toBeDefined()
    expect(go().attributes('disabled')).toBeDefined()
  })

  it('lets all that can follow, just as they were looked at, and tells which did not', async () => {
    const { view, asked, row, go } = await page()
    await row('Copy south').get('fieldset input').setValue(true)
    await view.get('.acts input').setValue(true)
    expect(go().text()).toBe('Let 2 copies follow')
    await go().trigger('click')
    await flushPromises()
    expect(asked.find((call) => call.key.startsWith('POST'))!.body).toEqual({
      copies: [
        { copy: 'north', seen: 'seen-north', take: [] },
        { copy: 'south', seen: 'seen-south', take: ['fields/notes'] },
      ],
    })
    expect(view.get('[role="status"]').text()).toBe('1 copy follows it now.')
    expect(row('Copy south').text()).toContain('It did not follow: It changed since you looked.')
  })

  it('says what the last events of a copy would come to', async () => {
    const { row } = await page()
    const ask = row('Copy north')
      .findAll('button')
      .find((one) => one.text().includes('last events'))!
    await ask.trigger('click')
    await flushPromises()
    expect(row('Copy north').text()).toContain(
      '12 of its last 40 events would come to something else: due otherwise in 12.',
    )
  })

  it('lets a copy stand for itself', async () => {
    const { asked, row } = await page()
    await row('Copy north')
      .findAll('button')
      .find((one) => one.text().includes('stand for itself'))!
      .trigger('click')
    await flushPromises()
    expect(asked.some((call) => call.key === 'DELETE /bridges/north/original')).toBe(true)
  })
})
