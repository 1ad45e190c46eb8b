import { computed, ref, watch, type Ref } from 'vue'
import type { TraceSummary } from './api'

/** Whether a trace can be sent again with others. */
export const canBeChosen = (trace: TraceSummary) =>
  !trace.trial && !trace.resent && trace.verdict !== 'WAITING'

/** The traces of a list that a person chose; what is not in the list any more is not chosen. */
export function useChosen(traces: Ref<TraceSummary[]>) {
  const chosen = ref(new Set<string>())
  const choosable = computed(() => traces.value.filter(canBeChosen))
  const all = computed(
    () => choosable.value.length > 0 && choosable.value.every((one) => chosen.value.has(one.id)),
  )
  let last = ''

  /** With a range, all between this one and the one before it become as this one. */
  function choose(id: string, on: boolean, range = false) {
    const ids = choosable.value.map((one) => one.id)
    const [from, to] = [ids.indexOf(range ? last : id), ids.indexOf(id)].sort((a, b) => a - b)
    const some = from! < 0 ? [id] : ids.slice(from, to! + 1)
    const next = new Set(chosen.value)
    for (const one of some) {
      if (on) next.add(one)
      else next.delete(one)
    }
    chosen.value = next
    last = id
  }

  function chooseAll(on: boolean) {
    chosen.value = new Set(on ? choosable.value.map((one) => one.id) : [])
  }

  watch(choosable, (now) => {
    const there = new Set(now.map((one) => one.id))
    const kept = [...chosen.value].filter((id) => there.has(id))
    if (kept.length < chosen.value.size) chosen.value = new Set(kept)
  })

  return { chosen, all, choose, chooseAll }
}
