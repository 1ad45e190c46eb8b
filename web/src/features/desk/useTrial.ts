import { ref, shallowRef, watch, type Ref } from 'vue'
import { tryDraft, type TrialView } from './api'

/** At most one computation begins in this span; the first key of a burst does not wait. */
const PAUSE = 40

/** What the draft makes of real events, computed again at every change. */
export function useTrial(id: string, text: Ref<string>, sample: Ref<string>) {
  const trial = shallowRef<TrialView | null>(null)
  const error = ref('')
  let newest = 0
  let timer: number | undefined
  let began = -PAUSE

  async function run(fresh = false) {
    const mine = ++newest
    began = performance.now()
    try {
      const answer = await tryDraft(id, text.value, sample.value, fresh)
      // An older answer never replaces a newer one.
      if (mine === newest) {
        trial.value = answer
        error.value = ''
      }
    } catch (e) {
      if (mine === newest) error.value = (e as Error).message
    }
  }

  watch([text, sample], () => {
    if (text.value === '{}') return
    window.clearTimeout(timer)
    const left = Math.max(0, began + PAUSE - performance.now())
    timer = window.setTimeout(() => void run(), left)
  })

  return { trial, error, run }
}
