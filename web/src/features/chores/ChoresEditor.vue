<script setup lang="ts">
import { computed, onUnmounted, ref, watch } from 'vue'
import { useSession } from '@/shared/composables/session'
import { counted } from '@/shared/format/words'
import { isGroup, withKey, type Group, type Tree } from '@/shared/tree'
import { CatchUp, OffDays } from '@/features/times'
import CellChoice from './CellChoice.vue'
import RowList from './RowList.vue'
import { previewRows, type RowsView } from './api'
import { cellOf, DAY_FORMS, dayFormOf, dayIn, likelyCell, type Cell } from './cells'

/** Whether each record of the source comes round by itself, as its row says, and when. */
const props = defineProps<{
  id: string
  doc: Group
  record: string
  cells: Cell[]
  calendars: string[]
}>()
const emit = defineEmits<{ change: [doc: Group] }>()
const { zone: own } = useSession()

const PAUSE = 200
const preview = ref<RowsView | null>(null)
const refused = ref('')
let newest = 0
let timer: number | undefined

const from = computed<Group>(() => (isGroup(props.doc.from) ? props.doc.from : {}))
const chores = computed<Group | null>(() => (isGroup(from.value.chores) ? from.value.chores : null))
const done = computed(() => cellOf(chores.value?.done))
const start = computed(() => cellOf(chores.value?.start))
const said = (key: string) => String(chores.value?.[key] ?? '')
const cell = (address: string) => props.cells.find((one) => one.address === address)

watch(
  () => (chores.value ? JSON.stringify(props.doc) : ''),
  (text) => {
    window.clearTimeout(timer)
    if (text) timer = window.setTimeout(() => void look(text), preview.value ? PAUSE : 0)
  },
  { immediate: true },
)
onUnmounted(() => window.clearTimeout(timer))

async function look(text: string) {
  const mine = ++newest
  try {
    const answer = await previewRows(props.id, text)
    // An older answer never replaces a newer one.
    if (mine !== newest) return
    refused.value = answer.problem
    if (!answer.problem || answer.rows.length) preview.value = answer
  } catch (e) {
    if (mine === newest) refused.value = (e as Error).message
  }
}

const OF_A_TIME = ['event/record', '/occurrence/said']

/** One time of a row is one task, so that the match key has to tell its times apart. */
function begin() {
  const often = likelyCell(props.cells, /every|often|repeat|interval|rhythm/i) ?? props.cells[0]
  const first: Group = { every: often?.address ?? '', zone: own.value, at: '06:00' }
  emit('change', { ...props.doc, from: { ...from.value, chores: first }, match: OF_A_TIME })
}

function end() {
  const rest = withKey(withKey(from.value, 'chores', undefined), 'catch-up', undefined)
  emit('change', { ...props.doc, from: rest, match: ['event/record'] })
}

const put = (key: string, part: Tree | undefined) => set(withKey(chores.value ?? {}, key, part))
const set = (next: Group) => emit('change', { ...props.doc, from: { ...from.value, chores: next } })
const days = (key: string, address: string, form: string) =>
  put(key, dayIn(cell(address), form || 'iso'))
const offDays = (word: string, calendar: string | undefined) =>
  set(
    withKey(
      withKey(chores.value ?? {}, 'off-days', word === 'keep' ? undefined : word),
      'calendar',
      calendar ?? (said('calendar') || undefined),
    ),
  )
const SPREADS: Record<string, string> = {
  PT5M: '5 minutes',
  PT10M: '10 minutes',
  PT30M: 'half an hour',
  PT1H: 'an hour',
  PT2H: '2 hours',
}
const value = (event: Event) => (event.target as HTMLInputElement).value
const DAYS = [
  { key: 'done', label: 'When it was done last', absent: 'does not matter', at: done },
  { key: 'start', label: 'It counts from', absent: 'no day that is said', at: start },
]
</script>

<template>
  <section class="chores" :class="{ on: chores }" :aria-label="`When each ${record} comes round`">
    <label class="saying">
      <input type="checkbox" :checked="!!chores" @change="chores ? end() : begin()" />
      <span :class="{ mid: !chores }"
        >Each {{ record }} comes round by itself, as its row says</span
      >
    </label>
    <template v-if="chores">
      <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
      <p class="saying choices">
        <CellChoice
          label="How often"
          :part="chores.every"
          :cells="cells"
          absent=""
          typed="text"
          @change="put('every', $event)"
        />
        <CellChoice
          label="at"
          :part="chores.at"
          :cells="cells"
          absent="midnight"
          typed="time"
          @change="put('at', $event)"
        />
        <CellChoice
          label="in"
          :part="chores.zone"
          :cells="cells"
          absent=""
          typed="zone"
          @change="put('zone', $event)"
        />
      </p>
      <p class="saying choices">
        <CellChoice
          label="Its task is made before it is due, by days or working days"
          :part="chores.lead"
          :cells="cells"
          absent="not before"
          typed="text"
          @change="put('lead', $event)"
        />
      </p>
      <p v-for="day in DAYS" :key="day.key" class="saying choices">
        <label
          ><span class="mid">{{ day.label }}</span>
          <select
            class="in"
            :aria-label="day.label"
            :value="day.at.value"
            @change="days(day.key, value($event), dayFormOf(chores[day.key]))"
          >
            <option value="">{{ day.absent }}</option>
            <option v-for="one in cells" :key="one.address" :value="one.address">
              stands in “{{ one.name }}”
            </option>
          </select></label
        >
        <label v-if="cell(day.at.value)?.type === 'text'"
          ><span class="mid">written like</span>
          <select
            class="in"
            :aria-label="`${day.label}: written like`"
            :value="dayFormOf(chores[day.key])"
            @change="days(day.key, day.at.value, value($event))"
          >
            <option v-if="!dayFormOf(chores[day.key])" value="">in another way</option>
            <option v-for="(form, key) in DAY_FORMS" :key="key" :value="key">
              {{ form.shown }}
            </option>
          </select></label
        >
      </p>
      <OffDays
        :off-days="said('off-days') || 'keep'"
        :calendar="said('calendar')"
        :calendars="calendars"
        @change="offDays"
      />
      <p class="saying choices">
        <CatchUp :from="from" @change="emit('change', { ...doc, from: $event })" />
        <label
          ><span class="mid">Those of one moment are made</span>
          <select
            class="in"
            aria-label="Those of one moment are made"
            :value="said('spread')"
            @change="put('spread', value($event) || undefined)"
          >
            <option value="">all at once</option>
            <option v-if="said('spread') && !SPREADS[said('spread')]" :value="said('spread')">
              over {{ said('spread') }}
            </option>
            <option v-for="(words, span) in SPREADS" :key="span" :value="span">
              over {{ words }}
            </option>
          </select></label
        >
      </p>
      <template v-if="preview">
        <p class="saying">
          <span class="mid">{{ counted(preview.all, 'row') }} looked at</span>
          <span v-if="preview.bad" class="bad"
            >{{ counted(preview.bad, 'row') }} cannot be used, and keep{{
              preview.bad === 1 ? 's' : ''
            }}
            no other from coming round</span
          >
        </p>
        <RowList :rows="preview.rows" :record="record" />
      </template>
    </template>
  </section>
</template>

<style scoped>
.chores.on {
  border-bottom: 1px solid var(--line);
  padding: 0 4px 8px;
  margin-bottom: 8px;
}
</style>
