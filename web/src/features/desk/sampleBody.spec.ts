import { describe, expect, it } from 'vitest'
import { bodyFromFields } from './sampleBody'

const made = (type: string, text: string) =>
  JSON.parse(bodyFromFields([{ address: '/v', type }], { '/v': text })).v as unknown

describe('a body made by hand', () => {
  it('has each value at its own place', () => {
    const fields = ['/id', '/answers/place', '/answers/when'].map((address) => ({
      address,
      type: 'text',
    }))
    const typed = { '/id': 'vd-1', '/answers/place': 'Palm walk', '/answers/when': '' }
    expect(JSON.parse(bodyFromFields(fields, typed))).toEqual({
      id: 'vd-1',
      answers: { place: 'Palm walk' },
    })
  })

  // The escapes of RFC 6901 section 5: a~1b names "a/b", m~0n names "m~n".
  it('reads the escapes of a pointer', () => {
    const body = bodyFromFields(
      [
        { address: '/a~1b', type: 'text' },
        { address: '/m~0n', type: 'text' },
      ],
      { '/a~1b': '1', '/m~0n': '8' },
    )
    expect(JSON.parse(body)).toEqual({ 'a/b': '1', 'm~n': '8' })
  })

  it('holds numbers, flags and lists as JSON does, and what is none as it was typed', () => {
    expect(made('number', '12.5')).toBe(12.5)
    expect(made('number', 'twelve')).toBe('twelve')
    expect(made('flag', 'true')).toBe(true)
    expect(made('flag', 'perhaps')).toBe('perhaps')
    expect(made('list of text', 'a, b')).toEqual(['a', 'b'])
    expect(made('list of text', '["a, b"]')).toEqual(['a, b'])
    expect(made('text', '12')).toBe('12')
  })

  it('is empty while nothing is typed', () => {
    expect(bodyFromFields([{ address: '/v', type: 'text' }], {})).toBe('')
  })
})
