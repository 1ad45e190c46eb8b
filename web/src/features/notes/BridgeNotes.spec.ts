import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import '@/test/desk'
import { useSession } from '@/shared/composables/session'
import BridgeNotes from './BridgeNotes.vue'
import KnownTroubles from './KnownTroubles.vue'
import * as api from './api'
import type { Note } from './api'

useSession().zone.value = 'Europe/Lisbon'

const note = (id: number, part: Partial<Note> = {}): Note => ({
  id,
  kind: 'NOTE',
  words: `note ${id}`,
  link: '',
  revision: 1,
  writtenAt: '2026-11-24T10:00:00Z',
  writtenBy: 'person',
  overSince: null,
  pictures: [],
  before: [],
  ...part,
})
const trouble = note(2, { kind: 'TROUBLE', words: 'Clubs write no date', revision: 3 })

async function shown() {
  vi.spyOn(api, 'readNotes').mockResolvedValue([
    note(4, { overSince: '2026-11-25T10:00:00Z' }),
    note(3, { before: [{ ...note(3), words: 'as it was' }] }),
    trouble,
  ])
  const notes = mount(BridgeNotes, { props: { id: 'school-visit' } })
  await flushPromises()
  return notes
}

describe('the notes of a bridge', () => {
  it('stand with known troubles first, with what they said before, and what is over apart', async () => {
    const notes = await shown()
    expect(notes.findAll('li p:first-child').map((p) => p.text())).toEqual([
      'Known trouble: Clubs write no date',
      'note 3',
    ])
    expect(notes.text()).toContain('1 time written anew')
    expect(notes.text()).toContain('as it was')
    expect(notes.text()).toContain('1 note that is over')
  })

  it('are said to be over, and written down, on what the person saw', async () => {
    const change = vi.spyOn(api, 'changeNote').mockResolvedValue([])
    const add = vi.spyOn(api, 'addNote').mockResolvedValue([note(9, { words: 'A new one' })])
    const notes = await shown()
    const button = (name: string) => notes.findAll('button').find((one) => one.text() === name)!
    await button('It is over').trigger('click')
    await flushPromises()
    expect(change).toHaveBeenCalledWith('school-visit', 2, {
      kind: 'TROUBLE',
      words: 'Clubs write no date',
      link: '',
      over: true,
      basedOn: 3,
    })
    await button('Write a note…').trigger('click')
    await notes.find('#note textarea').setValue('A new one')
    await notes.find('#note').trigger('submit')
    await flushPromises()
    expect(add).toHaveBeenCalledWith('school-visit', {
      kind: 'NOTE',
      words: 'A new one',
      link: '',
      over: false,
      basedOn: 0,
    })
    expect(notes.text()).toContain('A new one')
    expect(notes.find('#note').exists()).toBe(false)
  })

  it('show known troubles where the bridge failed, and nothing else', async () => {
    vi.spyOn(api, 'readNotes').mockResolvedValue([note(3), trouble])
    const known = mount(KnownTroubles, { props: { bridge: 'school-visit' } })
    await flushPromises()
    expect(known.text()).toBe('Known trouble of this bridge: Clubs write no date')
  })
})
