import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { arriving } from '@/test/desk'
import LookupEditor from './LookupEditor.vue'
import type { LookupFound, LookupPlace } from './api'
import type { Tree } from './tree'

const places = [
  {
    system: 'visitor-desk',
    systemName: 'Visitor Desk',
    collection: 'hazard-reports',
    name: 'Hazard reports',
    record: 'report',
    by: [['id'], ['number', 'year']],
    eventBy: ['submission'],
  },
  {
    system: 'chat',
    systemName: 'Chat',
    collection: 'posts',
    name: 'Posts',
    record: 'post',
    by: [],
    eventBy: ['thread'],
  },
] as unknown as LookupPlace[]

const ONE = {
  report: { in: 'visitor-desk/hazard-reports', by: { id: '/submission' }, none: 'fail' },
}

function editor(lookups: Tree | undefined, found: Partial<LookupFound>[] = []) {
  const view = mount(LookupEditor, {
    props: {
      lookups,
      found: found as LookupFound[],
      arriving,
      places,
      bridges: [{ id: 'hazard-to-grounds', name: 'Hazard report' }],
      problems: [],
    },
  })
  return {
    view,
    last: () => view.emitted('change')!.at(-1)![0] as Record<string, Tree> | undefined,
  }
}
const openOne = (found: Partial<LookupFound>[] = []) => {
  const made = editor(ONE, found)
  return made.view
    .get('.head')
    .trigger('click')
    .then(() => made)
}

describe('a lookup', () => {
  it.each([
    [1, '1 found; found for 2 of 3'],
    [0, 'nothing found; found for 2 of 3'],
    [-1, 'not asked for this event; found for 2 of 3'],
  ])('says what it found: %d', (records, words) => {
    const { view } = editor(ONE, [{ name: 'report', records, foundIn: 2, askedIn: 3 }])
    expect(view.get('.said').text()).toBe(words)
  })

  it('is added with a name of its own and the first key that there is', async () => {
    const { view, last } = editor(ONE)
    const box = view.get('[aria-label="Look something up"]')
    await box.setValue('report of')
    await box.trigger('keydown.enter')
    expect(last()!['report-2']).toEqual({
      in: 'visitor-desk/hazard-reports',
      by: { id: '/submission' },
      none: 'fail',
    })
  })

  it('finds the task that a bridge made, and may wait for it', async () => {
    const { view, last } = editor(undefined)
    const offered = view.findAll('li[role="option"]')
    const task = offered.find((one) => one.text().includes('task that “Hazard report” made'))!
    await task.trigger('mousedown')
    expect(last()).toMatchObject({
      task: { in: 'hazard-to-grounds', from: 'tasks', none: 'fail' },
    })
    await view.setProps({ lookups: last() })
    expect(view.text()).toContain('that “Hazard report” made')
    const wait = view.findAll('select').find((one) => one.text().includes('for an hour'))!
    await wait.setValue('PT1H')
    expect(last()).toMatchObject({ task: { wait: 'PT1H' } })
    await wait.setValue('')
    expect((last() as { task: object }).task).not.toHaveProperty('wait')
  })

  it('of what cannot be asked is looked for among the events received', async () => {
    const { view, last } = editor(undefined)
    const box = view.get('[aria-label="Look something up"]')
    await box.setValue('post')
    await box.trigger('keydown.enter')
    expect(last()!.post).toMatchObject({
      in: 'chat/posts',
      from: 'events',
      by: { thread: '/submission' },
    })
  })

  it('goes by other keys, and by other fields', async () => {
    const { view, last } = await openOne()
    const [origin, keys, field, none] = view.findAll('select')
    await keys!.setValue('number\nyear')
    expect(last()!.report).toMatchObject({ by: { number: '/submission', year: '/submission' } })
    await field!.setValue('report/place')
    expect(last()!.report).toMatchObject({ by: { id: 'report/place' } })
    await none!.setValue('pass-by')
    expect(last()!.report).toMatchObject({ none: 'pass-by' })
    await origin!.setValue('events')
    expect(last()!.report).toMatchObject({ from: 'events', by: { submission: '/submission' } })
  })

  it('leaves no empty group behind when the last one goes', async () => {
    const { view, last } = await openOne()
    await view
      .findAll('button')
      .find((one) => one.text() === 'Remove the lookup')!
      .trigger('click')
    expect(last()).toBeUndefined()
  })
})
