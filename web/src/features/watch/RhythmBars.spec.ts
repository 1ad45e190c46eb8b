import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import RhythmBars from './RhythmBars.vue'

describe('rhythm bars', () => {
  it('stack failed at the foot and stay inside the height', () => {
    const bars = Array.from({ length: 48 }, (_, i) => ({
      made: i,
      changed: 1,
      other: 0,
      failed: i % 2,
    }))
    const rects = mount(RhythmBars, { props: { bars } }).findAll('rect')
    const tops = rects.map((rect) => Number(rect.attributes('y')))
    expect(Math.min(...tops)).toBeGreaterThanOrEqual(0)
    const second = rects.filter((rect) => rect.attributes('x') === '4.5')
    expect(second[0]!.attributes('fill')).toBe('var(--failed)')
    expect(second).toHaveLength(3)
  })

  it('draw nothing for half hours without events', () => {
    const bars = [{ made: 0, changed: 0, other: 0, failed: 0 }]
    expect(mount(RhythmBars, { props: { bars } }).findAll('rect')).toHaveLength(0)
  })
})
