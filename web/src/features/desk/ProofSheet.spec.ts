import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import ProofSheet from './ProofSheet.vue'

useSession().zone.value = 'Europe/Lisbon'

const rows = Array.from({ length: 1000 }, (_, i) => ({
  id: String(i),
  record: `vd-${i}`,
  title: '',
  time: '2026-11-24T10:00:00Z',
  verdict: i % 10 ? 'create' : 'failed',
  because: '',
  liveVerdict: null,
  cells: [
    i % 10
      ? { text: `Report ${String(999 - i).padStart(3, '0')}`, odd: 'NO', why: '', live: null }
      : { text: 'soon', odd: 'FAILED', why: '“soon” is no day.', live: null },
  ],
}))

async function sheet() {
  serve({
    'POST /proof': { columns: [{ key: 'title', name: 'Title' }], rows, micros: 80_000, sides: [] },
  })
  const view = mount(ProofSheet, { props: { id: 'b', text: '{}' } })
  await flushPromises()
  const records = () => view.findAll('tbody td:first-child .mono').map((one) => one.text())
  return { view, records }
}

describe('the proof sheet', () => {
  it('has only the rows in sight in the page, at any place of a thousand', async () => {
    const { view, records } = await sheet()
    expect(view.text()).toContain('1000 of 1000 events, computed in 80 ms')
    expect(records().length).toBeLessThan(60)
    const scroll = view.get('.scroll')
    Object.defineProperty(scroll.element, 'clientHeight', { value: 300 })
    scroll.element.scrollTop = 15_000
    await scroll.trigger('scroll')
    expect(records()).toContain('vd-500')
    expect(records()).not.toContain('vd-0')
  })

  it('says of pairs what would be written to which side, and reads them again', async () => {
    const cells = [
      { text: 'Mend → Mend it', odd: 'TO_RIGHT', why: 'written to Ledger', live: 'Mend' },
      { text: 'Wanted ≠ Done', odd: 'ASKED', why: 'Both were changed', live: null },
    ]
    const pair = { ...rows[1], title: 'Mend it', verdict: 'update', cells }
    const columns = [
      { key: 'title', name: 'Title' },
      { key: 'status', name: 'Lane' },
    ]
    const of = (micros: number) => ({ columns, rows: [pair], micros, sides: ['Board', 'Ledger'] })
    serve({ 'POST /proof?again=false': of(80_000), 'POST /proof?again=true': of(90_000) })
    const view = mount(ProofSheet, { props: { id: 'b', text: '{}' } })
    await flushPromises()
    expect(view.text()).toContain('1 of 1 pairs, read and decided in 80 ms')
    expect(view.get('tbody td span').text()).toBe('Mend it')
    const shown = view.findAll('tbody .cell').map((one) => one.text().replace(/\s+/g, ' '))
    expect(shown).toEqual(['to Ledger: Mend → Mend it', 'asked: Wanted ≠ Done'])
    expect(view.get('select').text()).toContain('written to Ledger (1)')
    await view.get('button').trigger('click')
    await flushPromises()
    expect(view.text()).toContain('read and decided in 90 ms')
    await view.get('tbody button').trigger('click')
    expect(view.emitted('pin')).toEqual([[pair.id, 'Mend it']])
    await view.setProps({ pinned: '“Mend it” is pinned.' })
    expect(view.get('[role=status]').text()).toContain('is pinned')
  })

  it('filters by a reason that it counted', async () => {
    const { view, records } = await sheet()
    expect(view.text()).toContain('failed: “…” is no day. (100)')
    await view.get('select').setValue('failed: “…” is no day.')
    expect(view.text()).toContain('100 of 1000 events')
    expect(records().slice(0, 2)).toEqual(['vd-0', 'vd-10'])
  })

  it('sorts by a column and leads from a cell to its rule', async () => {
    const { view, records } = await sheet()
    await view.get('.sort').trigger('click')
    expect(records()[0]).toBe('vd-999')
    await view.get('.cell').trigger('click')
    expect(view.emitted('show')).toEqual([['title']])
  })

  it('gives as CSV what it shows', async () => {
    const { view } = await sheet()
    let blob: Blob | undefined
    URL.createObjectURL = (made) => {
      blob = made as Blob
      return 'blob:sheet'
    }
    URL.revokeObjectURL = vi.fn()
    const click = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => undefined)
    await view.get('select').setValue('failed: “…” is no day.')
    await view
      .findAll('button')
      .find((one) => one.text() === 'Export as CSV')!
      .trigger('click')
    expect(click).toHaveBeenCalledTimes(1)
    const reader = new FileReader()
    const text = await new Promise<string>((done) => {
      reader.onload = () => done(String(reader.result))
      reader.readAsText(blob!)
    })
    expect(text.split('\r\n')).toHaveLength(102)
    expect(text.split('\r\n')[1]).toBe('"vd-0","failed","soon"')
  })
})
