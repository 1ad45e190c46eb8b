import { RouterLinkStub, flushPromises, mount } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import { refusal, serve } from '@/test/desk'
import { useSession } from '@/shared/composables/session'
import KeptPair from './KeptPair.vue'
import type { KeptPair as Pair } from './api'

useSession().zone.value = 'Europe/Lisbon'

const pair = (part: Partial<Pair> = {}): Pair => ({
  bridge: 'works',
  bridgeName: 'Works board and ledger',
  key: 'k1',
  title: 'Cut the reeds',
  left: { place: 'Works, Grounds Board', system: 'Grounds Board', record: 'gb-1', page: '' },
  right: { place: 'Jobs, Works Ledger', system: 'Works Ledger', record: 'wl-1', page: '' },
  fields: [{ name: 'Title', left: 'Cut the reeds', right: 'Cut the reeds' }],
  madeAt: '2026-11-24T10:00:00Z',
  changedAt: '2026-11-24T10:00:00Z',
  parted: '',
  ...part,
})

function open(answer: unknown, of = pair()) {
  const asked = serve({ 'POST /follow': answer, 'POST /look': answer, 'POST /take-up': answer })
  const view = mount(KeptPair, {
    props: { pair: of },
    attachTo: document.body,
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  const button = (text: string) => view.findAll('button').find((one) => one.text() === text)!
  return { asked, view, button }
}

describe('a kept pair', () => {
  afterEach(() => {
    document.body.innerHTML = ''
  })

  it('lets one follow the other once, after it was said which is right', async () => {
    const { asked, view, button } = open({ trace: 't1' })
    await button('One is right…').trigger('click')
    expect(view.text()).toContain('as it is in Works, Grounds Board')
    expect(button('Write over the other').attributes('disabled')).toBeDefined()
    await view.get('input[value="RIGHT"]').setValue(true)
    await button('Write over the other').trigger('click')
    await flushPromises()
    expect(asked[0]!.body).toEqual({ leads: 'RIGHT' })
    expect(view.emitted('changed')).toHaveLength(1)
    expect(view.find('input[value="RIGHT"]').exists()).toBe(false)
    const link = view.getComponent('[role="status"] a') as unknown as {
      props: (name: string) => unknown
    }
    expect(link.props('to')).toEqual({ name: 'trace', params: { id: 't1' } })
  })

  it('stays open and says why it was refused', async () => {
    const { view, button } = open(refusal('One of the two tasks is not made yet.'))
    await button('One is right…').trigger('click')
    await view.get('input[value="LEFT"]').setValue(true)
    await button('Write over the other').trigger('click')
    await flushPromises()
    expect(view.get('dialog [role="alert"]').text()).toContain('is not made yet')
    expect(view.emitted('changed')).toBeUndefined()
  })

  it('lets one that was left as it is go across after all', async () => {
    const right = { place: 'Jobs, Works Ledger', system: 'Works Ledger', record: '', page: '' }
    const alone = pair({ right, parted: 'a person said that it is left as it is' })
    const { asked, view, button } = open({ trace: 't2' }, alone)
    expect(view.text()).toContain('Left as it is, and not made on the other side')
    expect(view.find('table').exists()).toBe(false)
    await button('Let it go across').trigger('click')
    await flushPromises()
    expect(asked[0]!.key).toBe('POST /take-up')
    expect(view.text()).toContain('It is looked at.')
  })

  it('is only looked at once it is parted', () => {
    const { view } = open({}, pair({ parted: 'a person said so' }))
    expect(view.findAll('button').map((one) => one.text())).toEqual(['What became of them'])
  })
})
