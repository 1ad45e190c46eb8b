import { ref, shallowRef, watch, type Ref } from 'vue'
import { tryDraft, type TrialView } from './api'

const PAUSE = 20

/** What the draft makes of real events, computed again at every change. */
export function useTrial(id: string, text: Ref<string>, sample: Ref<string>) {
  const trial = shallowRef<TrialView | null>(null)
  const error = ref('')
  let newest = 0
  let timer: number | undefined

  async function run(fresh = false) {
    const mine = ++newest
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
    timer = window.setTimeout(() => void run(), PAUSE)
  })

  return { trial, error, run }
}
