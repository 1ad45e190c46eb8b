import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { refusal, serve } from '@/test/desk'
import NewBridge from './NewBridge.vue'

const push = vi.hoisted(() => vi.fn())
vi.mock('vue-router', async (original) => ({
  ...(await original<typeof import('vue-router')>()),
  useRouter: () => ({ push }),
}))
beforeEach(() => push.mockReset())

const place = (system: string, part: object = {}) => ({
  system,
  systemName: system === 'desk' ? 'Visitor Desk' : 'Grounds Board',
  collection: 'reports',
  name: 'Reports',
  record: 'report',
  kinds: ['created', 'changed'],
  required: ['Title', 'Lane'],
  hindrance: '',
  ...part,
})
const HINDERED = place('board', {
  hindrance: 'It cannot make tasks yet. Ask its owner for a token.',
})

async function dialog(answers: Record<string, unknown> = {}) {
  const asked = serve({
    'POST /desk/copies': {},
    'PUT /bridges/second/original': undefined,
    'GET /desk/drafts/a': { document: '{"bridge":"a"}' },
    'POST /desk/drafts': {},
    'POST /desk/imported': { document: '{"bridge":"from-file","name":"From a file"}' },
    'GET /desk/starters': [
      { id: 'each', name: 'A task for each record', about: 'Each.', hindrance: '' },
      { id: 'table', name: 'By a table', about: 'A table.', hindrance: 'There is no table yet.' },
    ],
    'GET /desk/places/board': { seen: false, problem: 'The token is refused.' },
    'GET /desk/places/desk': { seen: true, problem: '' },
    'GET /desk/places': {
      sources: [place('desk')],
      targets: [place('board'), HINDERED],
      lookups: [],
    },
    ...answers,
  })
  const view = mount(NewBridge, { props: { bridges: [{ id: 'a', name: 'Hazard report' }] } })
  await flushPromises()
  const name = (text: string) => view.get('label:has(+ label) input[required]').setValue(text)
  const begin = async () => {
    await view.get('form').trigger('submit')
    await flushPromises()
  }
  const last = () => asked.at(-1)!
  return { view, asked, name, begin, last }
}

describe('a new bridge', () => {
  it('may change the record itself, where its system lets it be changed', async () => {
    const { view, name, begin, last } = await dialog({
      'GET /desk/places': {
        sources: [place('desk', { changes: true }), place('board')],
        targets: [place('board')],
        lookups: [],
      },
    })
    const [from, to] = view.findAll('select')
    await to!.setValue(-1)
    expect(view.find('.starters').exists()).toBe(false)
    await name('Numbers')
    await begin()
    expect(last().key).toBe('POST /desk/drafts')
    expect(last().body).toMatchObject({ targetSystem: '', targetCollection: '', starter: '' })
    await from!.setValue(1)
    expect(to!.element.value).toBe('0')
    expect(to!.text()).not.toContain('itself is changed')
  })

  it('tells what each place answers before anything is built', async () => {
    const { view } = await dialog()
    expect(view.text()).toContain('Visitor Desk answers.')
    expect(view.text()).toContain('The token is refused.')
    expect(view.text()).toContain('It needs Title and Lane')
  })

  it('begins between two places with a starter, under a short name made of its name', async () => {
    const { view, name, begin, last } = await dialog()
    await name('Öffnung: Palm House!')
    await view.get('input[value="each"]').setValue()
    await begin()
    expect(last().body).toMatchObject({
      id: 'o-ffnung-palm-house',
      name: 'Öffnung: Palm House!',
      sourceSystem: 'desk',
      kinds: ['created', 'changed'],
      targetSystem: 'board',
      starter: 'each',
    })
    expect(push).toHaveBeenCalledWith({ name: 'desk', params: { id: 'o-ffnung-palm-house' } })
  })

  it('does not offer a starter that lacks something, and says what', async () => {
    const { view } = await dialog()
    expect(view.get('input[value="table"]').attributes('disabled')).toBeDefined()
    expect(view.text()).toContain('There is no table yet.')
  })

  it('is not begun where we may not, with what to ask for', async () => {
    const { view, name } = await dialog()
    await name('Anything')
    await view.findAll('select')[1]!.setValue(1)
    expect(view.text()).toContain('Ask its owner for a token.')
    const open = view.findAll('button').find((one) => one.text() === 'Open its desk')!
    expect(open.attributes('disabled')).toBeDefined()
  })

  it('is a copy of another', async () => {
    const { view, asked, begin } = await dialog()
    await view.get('input[value="copy"]').setValue()
    await view.get('input[required]').setValue('Second')
    await begin()
    expect(asked.at(-2)!.key).toBe('POST /desk/copies')
    expect(asked.at(-2)!.body).toEqual({
      id: 'second',
      name: 'Second',
      document: '{"bridge":"a"}',
    })
    // It knows where it came from.
    expect(asked.at(-1)!.key).toBe('PUT /bridges/second/original')
    expect(asked.at(-1)!.body).toEqual({ original: 'a' })
  })

  it('comes from a document, with its own names', async () => {
    const { view, begin, last } = await dialog()
    await view.get('input[value="file"]').setValue()
    const input = view.get('input[type="file"]')
    const file = { text: () => Promise.resolve('bridge: from-file') }
    Object.defineProperty(input.element, 'files', { value: [file] })
    await input.trigger('change')
    await flushPromises()
    await begin()
    expect(last().body).toMatchObject({ id: 'from-file', name: 'From a file' })
  })

  it('stays open with what was typed when the name is taken', async () => {
    const { view, name, begin } = await dialog({
      'POST /desk/drafts': refusal('It is taken.', 409),
    })
    await name('Taken')
    await begin()
    expect(view.get('[role="alert"]').text()).toBe('It is taken.')
    expect(push).not.toHaveBeenCalled()
  })
})
