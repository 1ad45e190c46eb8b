import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import { onChange, useLive } from './live'

class FakeSource extends EventTarget {
  static last: FakeSource
  static readonly CLOSED = 2
  readyState = 1
  onopen: (() => void) | null = null
  onerror: (() => void) | null = null
  constructor() {
    super()
    FakeSource.last = this
  }
  tell(bridge: string, trace: string) {
    const data = JSON.stringify({ bridge, trace })
    this.dispatchEvent(new MessageEvent('trace', { data }))
  }
}

vi.stubGlobal('EventSource', FakeSource)

function listening(wanted: string, react: () => void) {
  return mount(
    defineComponent({
      setup() {
        onChange((change) => change.bridge === wanted, react)
        return () => h('div')
      },
    }),
  )
}

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

describe('live changes', () => {
  it('react once to many changes in a short while, and only to wanted ones', () => {
    const react = vi.fn()
    const view = listening('a', react)
    FakeSource.last.tell('a', '1')
    FakeSource.last.tell('a', '2')
    FakeSource.last.tell('b', '3')
    vi.advanceTimersByTime(300)
    expect(react).toHaveBeenCalledTimes(1)
    FakeSource.last.tell('b', '4')
    vi.advanceTimersByTime(300)
    expect(react).toHaveBeenCalledTimes(1)
    view.unmount()
    FakeSource.last.tell('a', '5')
    vi.advanceTimersByTime(300)
    expect(react).toHaveBeenCalledTimes(1)
  })

  it('read afresh once the stream is open, as something may have changed before', () => {
    const react = vi.fn()
    const view = listening('a', react)
    FakeSource.last.onopen?.()
    vi.advanceTimersByTime(300)
    expect(react).toHaveBeenCalledTimes(1)
    view.unmount()
  })

  it('open a stream again that ended with an error, and read afresh then', () => {
    const react = vi.fn()
    const view = listening('a', react)
    const ended = FakeSource.last
    ended.readyState = FakeSource.CLOSED
    ended.onerror?.()
    vi.advanceTimersByTime(3_100)
    expect(FakeSource.last).not.toBe(ended)
    FakeSource.last.onopen?.()
    vi.advanceTimersByTime(300)
    expect(react).toHaveBeenCalledTimes(1)
    expect(useLive().connected.value).toBe(true)
    view.unmount()
  })

  it('read everything afresh after a lost connection', () => {
    const react = vi.fn()
    const view = listening('a', react)
    FakeSource.last.onerror?.()
    expect(useLive().connected.value).toBe(false)
    FakeSource.last.onopen?.()
    vi.advanceTimersByTime(300)
    expect(useLive().connected.value).toBe(true)
    expect(react).toHaveBeenCalledTimes(1)
    view.unmount()
  })
})
