import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import { trialView } from '@/test/desk'
import * as api from './api'
import { useTrial } from './useTrial'

beforeEach(() => vi.useFakeTimers())
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
})

describe('a trial', () => {
  it('is computed once for keys that follow each other closely', async () => {
    const ask = vi.spyOn(api, 'tryDraft').mockResolvedValue(trialView())
    const text = ref('{}')
    const { trial } = useTrial('b', text, ref('1'))
    for (const typed of ['{"n":1}', '{"n":12}']) {
      text.value = typed
      await nextTick()
    }
    await vi.advanceTimersByTimeAsync(50)
    expect(ask).toHaveBeenCalledTimes(1)
    expect(ask).toHaveBeenCalledWith('b', '{"n":12}', '1', false)
    expect(trial.value).not.toBeNull()
  })

  it('does not make a single key wait, and begins at most once in 40 ms', async () => {
    const ask = vi.spyOn(api, 'tryDraft').mockResolvedValue(trialView())
    const text = ref('{}')
    useTrial('b', text, ref(''))
    await vi.advanceTimersByTimeAsync(1000)
    const type = async (typed: string) => {
      text.value = typed
      await nextTick()
      await vi.advanceTimersByTimeAsync(1)
    }
    await type('{"n":1}')
    expect(ask).toHaveBeenCalledTimes(1)
    await type('{"n":12}')
    await type('{"n":123}')
    expect(ask).toHaveBeenCalledTimes(1)
    await vi.advanceTimersByTimeAsync(40)
    expect(ask).toHaveBeenCalledTimes(2)
    expect(ask.mock.lastCall![1]).toBe('{"n":123}')
  })

  it('never lets an older answer replace a newer one', async () => {
    const waiting: ((view: api.TrialView) => void)[] = []
    vi.spyOn(api, 'tryDraft').mockImplementation(
      () => new Promise((answer) => waiting.push(answer)),
    )
    const { trial, run } = useTrial('b', ref('{"n":1}'), ref(''))
    const first = run()
    const second = run()
    waiting[1]!(trialView({ matchKey: 'newer' }))
    waiting[0]!(trialView({ matchKey: 'older' }))
    await Promise.all([first, second])
    expect(trial.value?.matchKey).toBe('newer')
  })

  it('keeps the last result when the server refuses, and says why', async () => {
    const ask = vi.spyOn(api, 'tryDraft').mockResolvedValueOnce(trialView())
    const { trial, error, run } = useTrial('b', ref('{"n":1}'), ref(''))
    await run()
    ask.mockRejectedValueOnce(new Error('The application does not answer.'))
    await run()
    expect(trial.value).not.toBeNull()
    expect(error.value).toBe('The application does not answer.')
  })
})
