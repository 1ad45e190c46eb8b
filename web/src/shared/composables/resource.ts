import { ref, shallowRef, type Ref } from 'vue'

/** Something read from the API, with what a view needs to show of the reading. */
export interface Resource<T> {
  data: Ref<T | null>
  error: Ref<string>
  loading: Ref<boolean>
  load: () => Promise<void>
}

/** An older answer never replaces a newer one, and a failed refresh keeps what was there. */
export function useResource<T>(read: () => Promise<T>): Resource<T> {
  const data = shallowRef<T | null>(null)
  const error = ref('')
  const loading = ref(false)
  let newest = 0

  async function load() {
    const mine = ++newest
    loading.value = true
    try {
      const answer = await read()
      if (mine === newest) {
        data.value = answer
        error.value = ''
      }
    } catch (e) {
      if (mine === newest) error.value = (e as Error).message
    } finally {
      if (mine === newest) loading.value = false
    }
  }

  return { data, error, loading, load }
}
