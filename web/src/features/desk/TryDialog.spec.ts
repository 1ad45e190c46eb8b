import { flushPromises, mount, RouterLinkStub } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { leavingField, refusal, sample, serve, trialView } from '@/test/desk'
import TryDialog from './TryDialog.vue'

useSession().zone.value = 'Europe/Lisbon'

const trace = (part: object = {}, targetPage = '') => ({
  trace: { id: 't', verdict: 'CREATE', target: 'gb-7', reason: '', takenBackAt: null, ...part },
  targetPage,
})

async function tried(answers: Record<string, unknown>) {
  answers['POST /tries?sample=1'] ??= { trace: 't' }
  const asked = serve(answers)
  const leaving = [
    leavingField('title', { shown: 'Palm walk: 4' }),
    leavingField('due', { shown: '2026-11-30T17:00:00Z' }),
    leavingField('notes'),
  ]
  const view = mount(TryDialog, {
    props: {
      id: 'b',
      text: '{}',
      trial: trialView({ leaving }),
      sample: sample('1'),
      target: 'Grounds Board',
    },
    global: { stubs: { RouterLink: RouterLinkStub } },
  })
  const act = (text: string) => view.findAll('button').find((one) => one.text() === text)
  const text = () => view.text().replace(/\s+/g, ' ')
  return { view, asked, act, text }
}

describe('one real try', () => {
  it('says what will leave, and sends nothing by itself', async () => {
    const { view, asked, text } = await tried({})
    expect(text()).toContain('The event of vd-1 is sent once by this draft.')
    expect(view.findAll('dt').map((one) => one.text())).toEqual(['Title', 'Due'])
    expect(view.findAll('dd')[1]!.text()).toBe('30 Nov 2026, 17:00')
    expect(asked).toHaveLength(0)
  })

  it('leads to the task it made, and takes it back', async () => {
    const answers: Record<string, unknown> = {
      'GET /traces/t': trace({}, 'http://board/tasks#gb-7'),
      'POST /traces/t/take-back': undefined,
    }
    const { view, act, text } = await tried(answers)
    await act('Send this one event')!.trigger('click')
    await flushPromises()
    expect(view.get('a[target="_blank"]').attributes('href')).toBe('http://board/tasks#gb-7')
    answers['GET /traces/t'] = trace({ takenBackAt: '2026-11-24T10:00:00Z' })
    await act('Take the task back')!.trigger('click')
    await flushPromises()
    expect(text()).toContain('The task is taken back. Grounds Board does not hold it any more.')
    expect(act('Take the task back')).toBeUndefined()
  })

  it('that is still under way says so and offers nothing to take back', async () => {
    const { act, text } = await tried({
      'GET /traces/t': trace({ verdict: 'WAITING', target: '' }),
    })
    await act('Send this one event')!.trigger('click')
    await flushPromises()
    expect(text()).toContain('Under way…')
    expect(act('Take the task back')).toBeUndefined()
  })

  it('that made no task says why', async () => {
    const failed = trace({ verdict: 'FAILED', target: '', reason: 'Due: “soon” is no day.' })
    const { act, text } = await tried({ 'GET /traces/t': failed })
    await act('Send this one event')!.trigger('click')
    await flushPromises()
    expect(text()).toContain('No task was made. Due: “soon” is no day.')
  })

  it('that is refused can be sent again', async () => {
    const { act, text } = await tried({ 'POST /tries?sample=1': refusal('The draft has a fault.') })
    await act('Send this one event')!.trigger('click')
    await flushPromises()
    expect(text()).toContain('The draft has a fault.')
    expect(act('Send this one event')!.attributes('disabled')).toBeUndefined()
  })
})
