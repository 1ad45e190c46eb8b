import { nextTick, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import type { TraceSummary } from './api'
import { useChosen } from './useChosen'

const trace = (id: string, over: Partial<TraceSummary> = {}) =>
  ({ id, trial: false, resent: false, verdict: 'FAILED', ...over }) as TraceSummary

describe('choosing traces', () => {
  it('chooses one, a range, and all that can be sent again', () => {
    const traces = ref([
      trace('a'),
      trace('b', { resent: true }),
      trace('c'),
      trace('d', { verdict: 'WAITING' }),
      trace('e'),
    ])
    const { chosen, all, choose, chooseAll } = useChosen(traces)
    choose('c', true)
    expect([...chosen.value]).toEqual(['c'])
    choose('e', true, true)
    choose('a', true, true)
    expect([...chosen.value].sort()).toEqual(['a', 'c', 'e'])
    expect(all.value).toBe(true)
    choose('c', false)
    expect(all.value).toBe(false)
    chooseAll(true)
    expect(chosen.value.size).toBe(3)
    chooseAll(false)
    expect(chosen.value.size).toBe(0)
  })

  it('forgets what is not in the list any more or was sent again', async () => {
    const traces = ref([trace('a'), trace('b')])
    const { chosen, chooseAll } = useChosen(traces)
    chooseAll(true)
    traces.value = [trace('a', { resent: true }), trace('b'), trace('c')]
    await nextTick()
    expect([...chosen.value]).toEqual(['b'])
  })
})
