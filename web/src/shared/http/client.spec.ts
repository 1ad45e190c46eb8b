import { afterEach, describe, expect, it, vi } from 'vitest'
import { get, ProblemError, putText } from './client'

afterEach(() => vi.unstubAllGlobals())

function answering(status: number, body: string) {
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(body, { status })))
}

describe('calls to the API', () => {
  it('give what came', async () => {
    answering(200, '{"zone":"Europe/Lisbon"}')
    expect(await get('/api/session')).toEqual({ zone: 'Europe/Lisbon' })
  })

  it('throw a problem in its own words', async () => {
    answering(409, '{"title":"Still under way","detail":"This trace is not finished."}')
    await expect(get('/x')).rejects.toThrow('This trace is not finished.')
  })

  it('throw the status where there are no words', async () => {
    answering(502, '<html>')
    await expect(get('/x')).rejects.toThrow('The answer was 502.')
  })

  it('keep small bodies alive while the page closes, and send large ones all the same', async () => {
    const sent: RequestInit[] = []
    vi.stubGlobal('fetch', (_: string, how: RequestInit) => {
      sent.push(how)
      return Promise.resolve(new Response('{}'))
    })
    await putText('/x', 'a'.repeat(1000), 'text/csv')
    await putText('/x', 'ä'.repeat(40_000), 'text/csv')
    expect(sent.map((one) => one.keepalive)).toEqual([true, false])
    expect((sent[1]!.body as string).length).toBe(40_000)
  })

  it('say what is safe when nothing answers', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('refused')))
    const error = await get('/x').catch((e: unknown) => e)
    expect(error).toBeInstanceOf(ProblemError)
    expect((error as ProblemError).status).toBe(0)
    expect((error as Error).message).toContain('What was kept is safe')
  })
})
