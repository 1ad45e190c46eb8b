import { computed, ref, watch } from 'vue'

/**
 * What waits for a person, answered one after the other: the next can be answered while one is
 * kept, and one that is refused shows up again.
 *
 * @param all what waits, as it was read
 * @param keep keeps an answer; whether it was kept
 */
export function useQueue<T extends { id: number }, A>(
  all: () => readonly T[],
  keep: (one: T, answer: A) => Promise<boolean>,
) {
  /** What was answered and is not kept yet. */
  const answered = ref(new Set<number>())
  const chosen = ref<number | null>(null)
  const items = computed(() => all().filter((one) => !answered.value.has(one.id)))
  const looked = computed(
    () => items.value.find((one) => one.id === chosen.value) ?? items.value[0],
  )
  watch(looked, (one) => (chosen.value = one?.id ?? null), { immediate: true })

  let before: Promise<unknown> = Promise.resolve()
  function say(answer: A) {
    const one = looked.value
    if (!one) return
    const at = items.value.indexOf(one)
    const next = items.value[at + 1] ?? items.value[at - 1]
    answered.value.add(one.id)
    chosen.value = next?.id ?? null
    before = before.then(async () => {
      if (!(await keep(one, answer))) chosen.value = one.id
      answered.value.delete(one.id)
    })
  }
  return { items, looked, chosen, answered, say }
}
