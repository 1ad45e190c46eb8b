import { ref } from 'vue'

/** A part of a bridge that is at hand, to be put into another one. */
export interface Part {
  kind: 'rule' | 'steps' | 'condition' | 'lookup' | 'then'
  /** What it is called where it comes from. */
  name: string
  /** The name of the bridge it comes from. */
  of: string
  /** As the document holds it. */
  tree: unknown
}

const KEY = 'ysthmos.part-at-hand'

function kept(): Part | null {
  try {
    const text = window.localStorage.getItem(KEY)
    return text ? (JSON.parse(text) as Part) : null
  } catch (e) {
    console.warn('what was at hand cannot be read and is let go', e)
    window.localStorage.removeItem(KEY)
    return null
  }
}

const part = ref<Part | null>(kept())
window.addEventListener('storage', (event) => {
  if (event.key === KEY) part.value = kept()
})

/** One part of a bridge at hand, in every tab of this browser, until another takes its place. */
export function useShelf() {
  function take(next: Part | null) {
    part.value = next
    if (next) window.localStorage.setItem(KEY, JSON.stringify(next))
    else window.localStorage.removeItem(KEY)
  }
  return { part, take }
}
