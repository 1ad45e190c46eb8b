<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, momentText } from '@/shared/format/time'
import ResourceState from '@/shared/ui/ResourceState.vue'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { computeProof } from './api'
import { csvOf } from '@/shared/format/csv'
import { differs, reasonOf, reasonsOf } from './reasons'

/** Every sample, or every pair, against every field; only the rows in sight are in the page. */
const props = defineProps<{ id: string; text: string; pinned?: string }>()
const emit = defineEmits<{ show: [field: string]; pin: [row: string, name: string]; close: [] }>()
const { now, zone } = useSession()
const again = ref(false)
const { data, error, loading, load } = useResource(() =>
  computeProof(props.id, props.text, again.value),
)
onMounted(() => void load())
watch(
  () => props.text,
  () => void load(),
)

const ROW = 30
const SPARE = 8
const only = ref('all')
const sortBy = ref(-1)
const top = ref(0)
const height = ref(300)

const sides = computed(() => data.value?.sides ?? [])
const isOfPairs = computed(() => sides.value.length > 0)
const ODD = computed<Record<string, string>>(() => ({
  EMPTY: 'empty',
  WARNED: 'to look at',
  FAILED: 'failed',
  TO_LEFT: `to ${sides.value[0]}:`,
  TO_RIGHT: `to ${sides.value[1]}:`,
  TO_BOTH: 'to both:',
  ASKED: 'asked:',
  STAYS: 'stays:',
}))
/** What a row is, to people. */
const rowWord = computed(() => (isOfPairs.value ? 'pairs' : 'events'))

/** Reads the tasks of both sides anew; typing uses what was read before. */
async function readAgain() {
  again.value = true
  await load()
  again.value = false
}

const reasons = computed(() => reasonsOf(data.value?.rows ?? []))
const differing = computed(() => (data.value?.rows ?? []).filter(differs).length)

const place = ref('')
/** The places that the events came from, where the draft hears several. */
const places = computed(() =>
  [...new Set((data.value?.rows ?? []).map((row) => row.place))].filter(Boolean).sort(),
)
const rows = computed(() => {
  const all = (data.value?.rows ?? []).filter(
    (row) =>
      (!place.value || row.place === place.value) &&
      (only.value === 'all' ||
        (only.value === 'differs'
          ? differs(row)
          : row.cells.some((cell) => reasonOf(cell) === only.value))),
  )
  const by = sortBy.value
  return by < 0 ? all : [...all].sort((a, b) => a.cells[by]!.text.localeCompare(b.cells[by]!.text))
})

const first = computed(() => Math.max(0, Math.floor(top.value / ROW) - SPARE))
const inSight = computed(() =>
  rows.value.slice(first.value, first.value + Math.ceil(height.value / ROW) + 2 * SPARE),
)

function scrolled(event: Event) {
  const at = event.target as HTMLElement
  top.value = at.scrollTop
  height.value = at.clientHeight
}

/** The sheet as CSV (RFC 4180), as it is filtered and sorted. */
function exportCsv() {
  const placed = places.value.length > 0
  const columns = (data.value?.columns ?? []).map((column) => column.name)
  const head = ['record', ...(placed ? ['place'] : []), 'verdict', ...columns]
  const lines = rows.value.map((row) => [
    row.record,
    ...(placed ? [row.place] : []),
    row.verdict,
    ...row.cells.map((c) => c.text),
  ])
  const csv = csvOf(head, lines)
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([csv], { type: 'text/csv' }))
  link.download = `${props.id}-proof.csv`
  link.click()
  URL.revokeObjectURL(link.href)
}
</script>

<template>
  <section class="sheet" aria-labelledby="proof">
    <div class="top">
      <h2 id="proof">
        Proof sheet
        <small v-if="data"
          >{{ rows.length }} of {{ data.rows.length }} {{ rowWord }},
          {{ isOfPairs ? 'read and decided' : 'computed' }} in
          {{ Math.max(1, Math.round(data.micros / 1000)) }} ms</small
        >
      </h2>
      <label class="mid"
        >Only
        <select v-model="only" class="in">
          <option value="all">all {{ rowWord }}</option>
          <option v-for="reason in reasons" :key="reason.words" :value="reason.words">
            {{ reason.words }} ({{ reason.cells }})
          </option>
          <option value="differs">other than the live version ({{ differing }})</option>
        </select></label
      >
      <label v-if="places.length" class="mid"
        >from
        <select v-model="place" class="in">
          <option value="">all {{ places.length }} places</option>
          <option v-for="one in places" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
      <button v-if="isOfPairs" class="btn" :disabled="loading" @click="readAgain">
        Read both sides again
      </button>
      <button class="btn" @click="exportCsv">Export as CSV</button>
      <button class="btn" @click="emit('close')">Close</button>
    </div>
    <p v-if="isOfPairs && pinned" class="mid told" role="status">{{ pinned }}</p>
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <div v-if="data" class="scroll" tabindex="0" @scroll.passive="scrolled">
      <table class="rows">
        <thead>
          <tr>
            <th scope="col">{{ isOfPairs ? 'Pair' : 'Event' }}</th>
            <th v-if="places.length" scope="col">Place</th>
            <th v-if="isOfPairs" scope="col"><span class="unseen">Example</span></th>
            <th scope="col">Verdict</th>
            <th v-for="(column, i) in data.columns" :key="column.key" scope="col">
              <button class="sort" @click="sortBy = sortBy === i ? -1 : i">
                {{ column.name }}{{ sortBy === i ? ' ↓' : '' }}
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-if="first" aria-hidden="true" :style="{ height: `${first * ROW}px` }"></tr>
          <tr v-for="row in inSight" :key="row.id">
            <td>
              <span v-if="row.title" :title="row.record">{{ row.title }}</span>
              <span v-else class="mono">{{ row.record }}</span>
              <span class="dim when">{{ dayAndTime(row.time, now, zone) }}</span>
            </td>
            <td v-if="places.length">{{ row.place }}</td>
            <td v-if="isOfPairs">
              <button
                class="pin"
                :title="`Pins what becomes of “${row.title || row.record}”, to be checked each time the bridge goes live`"
                @click="emit('pin', row.id, row.title || row.record)"
              >
                Pin
              </button>
            </td>
            <td :title="row.because">
              <VerdictMark :kind="row.verdict" /> {{ row.verdict
              }}<span v-if="row.liveVerdict" class="dim"> (live: {{ row.liveVerdict }})</span>
            </td>
            <td
              v-for="(cell, i) in row.cells"
              :key="i"
              :class="[cell.odd.toLowerCase(), { differs: cell.live != null }]"
              :title="
                [cell.why, cell.live != null ? `live: ${cell.live || 'empty'}` : '']
                  .filter(Boolean)
                  .join('; ')
              "
            >
              <button class="cell" @click="emit('show', data.columns[i]!.key)">
                <span v-if="cell.odd !== 'NO'" class="odd">{{ ODD[cell.odd] }}</span>
                {{ momentText(cell.text, zone) }}
              </button>
            </td>
          </tr>
          <tr
            aria-hidden="true"
            :style="{ height: `${Math.max(0, rows.length - first - inSight.length) * ROW}px` }"
          ></tr>
        </tbody>
      </table>
      <p v-if="!data.rows.length" class="mid none">
        {{
          isOfPairs
            ? 'No task was found on either side.'
            : 'No event of this kind was received yet. The sheet fills as they come.'
        }}
      </p>
    </div>
  </section>
</template>

<style scoped>
.sheet {
  border-top: 2px solid var(--clay);
  background: var(--panel);
  display: flex;
  flex-direction: column;
  height: 46%;
  flex: none;
}
.top {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 8px 20px;
}
.top h2 {
  flex: 1;
  margin: 0;
}
.scroll {
  overflow: auto;
  flex: 1;
  padding: 0 20px;
}
table.rows th {
  position: sticky;
  top: 0;
  background: var(--panel);
}
table.rows td {
  height: 30px;
  max-width: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.told {
  margin: 0;
  padding: 0 20px 6px;
}
.pin {
  border: 0;
  background: none;
  padding: 0;
  color: inherit;
  font: inherit;
  text-decoration: underline;
  cursor: pointer;
}
.sort,
.cell {
  border: 0;
  background: none;
  padding: 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.failed {
  color: var(--failed);
}
.warned .odd,
.asked .odd {
  color: var(--held);
}
.to_left .odd,
.to_right .odd,
.to_both .odd {
  color: var(--kelp);
}
.when {
  margin-left: 8px;
}
.odd {
  font-size: 12px;
  font-weight: 600;
}
.empty {
  color: var(--ink-3);
}
.differs {
  background: var(--kelp-2);
}
.none {
  padding: 12px 0;
}
</style>
