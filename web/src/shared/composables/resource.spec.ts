import { describe, expect, it } from 'vitest'
import { useResource } from './resource'

function deferred<T>() {
  let resolve!: (value: T) => void
  let reject!: (reason: Error) => void
  const promise = new Promise<T>((yes, no) => {
    resolve = yes
    reject = no
  })
  return { promise, resolve, reject }
}

describe('a resource', () => {
  it('never lets an older answer replace a newer one', async () => {
    const calls = [deferred<string>(), deferred<string>()]
    let at = 0
    const { data, load } = useResource(() => calls[at++]!.promise)
    const first = load()
    const second = load()
    calls[1]!.resolve('new')
    await second
    calls[0]!.resolve('old')
    await first
    expect(data.value).toBe('new')
  })

  it('ends a load that is overtaken with the newest one', async () => {
    const calls = [deferred<string>(), deferred<string>()]
    let at = 0
    const { data, load } = useResource(() => calls[at++]!.promise)
    const seen: (string | null)[] = []
    const first = load().then(() => seen.push(data.value))
    const second = load()
    calls[0]!.resolve('old')
    await calls[0]!.promise
    expect(seen).toEqual([])
    calls[1]!.resolve('new')
    await Promise.all([first, second])
    expect(seen).toEqual(['new'])
  })

  it('keeps what was there when a refresh fails, and says so', async () => {
    let fail = false
    const { data, error, loading, load } = useResource(() =>
      fail ? Promise.reject(new Error('no answer')) : Promise.resolve('kept'),
    )
    await load()
    fail = true
    await load()
    expect(data.value).toBe('kept')
    expect(error.value).toBe('no answer')
    expect(loading.value).toBe(false)
  })
})
