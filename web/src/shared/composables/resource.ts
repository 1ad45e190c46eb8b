import { ref, shallowRef, type Ref } from 'vue'

/** Something read from the API, with what a view needs to show of the reading. */
export interface Resource<T> {
  data: Ref<T | null>
  error: Ref<string>
  loading: Ref<boolean>
  load: () => Promise<void>
}

/**
 * An older answer never replaces a newer one, and a failed refresh keeps what was there. A load
 * that is overtaken ends with the newest, so that who waited for it sees what came of what they did.
 */
export function useResource<T>(read: () => Promise<T>): Resource<T> {
  const data = shallowRef<T | null>(null)
  const error = ref('')
  const loading = ref(false)
  let newest = 0

  let last: Promise<void> = Promise.resolve()

  async function load() {
    let awaited = (last = readOnce(++newest))
    await awaited
    while (awaited !== last) {
      awaited = last
      await awaited
    }
  }

  async function readOnce(mine: number) {
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
