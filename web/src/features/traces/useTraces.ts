import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { startOfDay } from '@/shared/format/time'
import { readTraces, type TraceSummary } from './api'

/** The spans of time offered, in hours. */
export const SPANS: Record<string, { words: string; hours: number }> = {
  '1h': { words: 'last hour', hours: 1 },
  '24h': { words: 'last 24 hours', hours: 24 },
  '7d': { words: 'last 7 days', hours: 24 * 7 },
  '30d': { words: 'last 30 days', hours: 24 * 30 },
}

const DAY = /^\d{4}-\d{2}-\d{2}$/

/** The filters live in the address, so that a list can be kept and sent to someone. */
export function useTraces() {
  const route = useRoute()
  const router = useRouter()
  const { now, zone } = useSession()
  const asked = (name: string) => String(route.query[name] ?? '')

  const filter = computed(() => ({
    bridge: asked('bridge'),
    place: asked('bridge') ? asked('place') : '',
    verdict: asked('verdict'),
    text: asked('text'),
    span: asked('span') || '7d',
    from: DAY.test(asked('from')) ? asked('from') : '',
    until: DAY.test(asked('until')) ? asked('until') : '',
  }))

  function set(changes: Record<string, string>) {
    const query = { ...route.query, ...changes }
    const kept = Object.fromEntries(Object.entries(query).filter(([, value]) => value))
    void router.replace({ name: 'traces', query: kept })
  }

  const page = useResource(() => readTraces({ ...wanted(), before: null }))
  const older = ref<TraceSummary[]>([])
  const next = ref<number | null>(null)
  const failed = ref('')

  function wanted() {
    const { bridge, place, verdict, text, span, from, until } = filter.value
    const hours = SPANS[span]?.hours ?? 168
    const since =
      from === '' ? new Date(now.value.getTime() - hours * 3_600_000) : startOfDay(from, zone.value)
    const end = until === '' ? '' : startOfDay(until, zone.value, 1).toISOString()
    return {
      bridge,
      place,
      verdict,
      text,
      since: since.toISOString(),
      until: from === '' ? '' : end,
    }
  }

  async function load() {
    await page.load()
    older.value = []
    next.value = page.data.value?.next ?? null
  }

  async function more() {
    try {
      const answer = await readTraces({ ...wanted(), before: next.value })
      older.value = [...older.value, ...answer.traces]
      next.value = answer.next ?? null
      failed.value = ''
    } catch (e) {
      failed.value = (e as Error).message
    }
  }

  const traces = computed(() => [...(page.data.value?.traces ?? []), ...older.value])
  watch(filter, () => void load(), { immediate: true, deep: true })
  onChange(
    () => older.value.length === 0,
    () => void load(),
  )

  return { filter, set, traces, next, more, load, page, failed }
}
