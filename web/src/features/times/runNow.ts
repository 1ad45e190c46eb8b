import { ref, type Ref } from 'vue'

/** A time that a person runs by hand: first asked for, then run, with its trace or why not. */
export function useRunNow<T>(run: (what: T) => Promise<{ trace: string }>, after: () => unknown) {
  const asked: Ref<T | null> = ref(null)
  const answer = ref('')
  const trace = ref('')

  async function runAsked() {
    if (!asked.value) return
    try {
      trace.value = (await run(asked.value)).trace
      answer.value = ''
    } catch (e) {
      answer.value = (e as Error).message
    }
    asked.value = null
    await after()
  }
  return { asked, answer, trace, runAsked }
}
