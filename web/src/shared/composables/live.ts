import { onUnmounted, ref } from 'vue'

/** A trace changed. */
export interface Change {
  bridge: string
  trace: string
}

type Listener = (change: Change | null) => void

/** An event of a collection was received. */
export interface Arrival {
  system: string
  collection: string
}

const listeners = new Set<Listener>()
const arrivals = new Set<(arrival: Arrival) => void>()
const connected = ref(true)
let source: EventSource | undefined
/** How long it rests before a stream is opened that the browser has given up. */
const REST_BEFORE_OPENING = 3_000

function open() {
  source = new EventSource('/api/live')
  source.addEventListener('trace', (event) => {
    const change = JSON.parse((event as MessageEvent<string>).data) as Change
    listeners.forEach((listener) => listener(change))
  })
  source.addEventListener('arrival', (event) => {
    const arrival = JSON.parse((event as MessageEvent<string>).data) as Arrival
    arrivals.forEach((listener) => listener(arrival))
  })
  source.onopen = () => {
    // Nobody knows what changed before the stream was open, at first or after a gap, so everyone
    // reads afresh: a list read a moment earlier may already be out of date.
    listeners.forEach((listener) => listener(null))
    connected.value = true
  }
  source.onerror = () => {
    connected.value = false
    // A browser connects again by itself after a gap, but not after an answer that is an error.
    if (source?.readyState === EventSource.CLOSED) {
      source = undefined
      setTimeout(listen, REST_BEFORE_OPENING)
    }
  }
}

export function useLive() {
  return { connected }
}

/**
 * Calls back when a trace changed, at most once in a while however many changes come; `null` stands
 * for an unknown number of changes.
 */
export function onChange(wanted: (change: Change) => boolean, react: () => void, pause = 250) {
  let timer: ReturnType<typeof setTimeout> | undefined
  const listener: Listener = (change) => {
    if ((change === null || wanted(change)) && timer === undefined) {
      timer = setTimeout(() => {
        timer = undefined
        react()
      }, pause)
    }
  }
  listen()
  listeners.add(listener)
  onUnmounted(() => {
    clearTimeout(timer)
    listeners.delete(listener)
  })
}

/** Calls back at each event that is received. */
export function onArrival(react: (arrival: Arrival) => void) {
  listen()
  arrivals.add(react)
  onUnmounted(() => arrivals.delete(react))
}

function listen() {
  if (source === undefined && typeof EventSource !== 'undefined') open()
}
