import { ref } from 'vue'

/** Acts on something over there: whether that is under way, and why it was refused. */
export function useActing() {
  const busy = ref(false)
  const error = ref('')

  /** Whether it was done; what is refused says why and keeps what was typed. */
  async function during(act: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    error.value = ''
    try {
      await act()
      return true
    } catch (e) {
      error.value = (e as Error).message
      return false
    } finally {
      busy.value = false
    }
  }
  return { busy, error, during }
}
