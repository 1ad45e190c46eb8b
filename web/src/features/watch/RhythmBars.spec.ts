import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import RhythmBars from './RhythmBars.vue'

const none = { made: 0, changed: 0, other: 0, failed: 0, usualFrom: null, usualTo: null }

describe('rhythm bars', () => {
  it('stack failed at the foot and stay inside the height', () => {
    const bars = Array.from({ length: 48 }, (_, i) => ({
      made: i,
      changed: 1,
      other: 0,
      failed: i % 2,
      usualFrom: null,
      usualTo: null,
    }))
    const rects = mount(RhythmBars, { props: { bars } }).findAll('rect')
    const tops = rects.map((rect) => Number(rect.attributes('y')))
    expect(Math.min(...tops)).toBeGreaterThanOrEqual(0)
    const second = rects.filter((rect) => rect.attributes('x') === '4.5')
    expect(second[0]!.attributes('fill')).toBe('var(--failed)')
    expect(second).toHaveLength(3)
  })

  it('draw nothing for half hours without events', () => {
    const bars = [none]
    expect(mount(RhythmBars, { props: { bars } }).findAll('rect')).toHaveLength(0)
  })

  it('stand before what is usual, which stays inside the height too', () => {
    const bars = [
      { ...none, made: 2, usualFrom: 1, usualTo: 40 },
      { ...none, usualFrom: 0, usualTo: 8 },
    ]
    const view = mount(RhythmBars, { props: { bars } })
    expect(view.get('.usual').attributes('d')).toBe(
      'M0 3L4 3L4 22.2L8 22.2L8 27L4 27L4 26.4L0 26.4Z',
    )
    const unknown = mount(RhythmBars, { props: { bars: [none, ...bars] } })
    expect(unknown.find('.usual').exists()).toBe(false)
  })
})
