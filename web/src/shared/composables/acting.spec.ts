import { describe, expect, it } from 'vitest'
import { useActing } from './acting'

describe('acting', () => {
  it('is busy while it lasts, and says why it was refused until the next time', async () => {
    const { busy, error, during } = useActing()
    let end = () => {}
    const first = during(() => new Promise<void>((resolve) => (end = resolve)))
    expect(busy.value).toBe(true)
    end()
    expect(await first).toBe(true)
    expect(busy.value).toBe(false)
    expect(await during(() => Promise.reject(new Error('No room')))).toBe(false)
    expect(error.value).toBe('No room')
    await during(() => Promise.resolve())
    expect(error.value).toBe('')
  })
})
