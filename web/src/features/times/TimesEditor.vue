<script setup lang="ts">
import { computed, onUnmounted, ref, watch } from 'vue'
import { useSession } from '@/shared/composables/session'
import { isGroup, type Group, type Tree } from '@/shared/tree'
import CatchUp from './CatchUp.vue'
import OffDays from './OffDays.vue'
import RhythmChoice from './RhythmChoice.vue'
import TimeList from './TimeList.vue'
import { previewTimes, type TimesPreview, type TimeView } from './api'
import { rhythmOf, ruleOf, type Rhythm } from './rhythm'

/** When a bridge begins by itself: a sentence that is edited by choices, and what comes of it. */
const props = defineProps<{ from: Group; calendars: string[] }>()
const emit = defineEmits<{ change: [from: Group] }>()
const { zone: own } = useSession()

const PAUSE = 120
const preview = ref<TimesPreview | null>(null)
const refused = ref('')
const words = ref('')
const added = ref('')
let newest = 0
let timer: number | undefined

const times = computed<Group>(() => (isGroup(props.from.times) ? props.from.times : {}))
const said = (key: string) => String(times.value[key] ?? '')
const listed = (key: string) => {
  const list = times.value[key]
  return Array.isArray(list) ? list.map(String) : list ? [String(list)] : []
}
const isRule = computed(() => /^FREQ=/i.test(said('rule')))
/** Words may say the time of day themselves. */
const start = computed(() => (!isRule.value && preview.value?.start) || said('start'))
/** Of words as they were read last; a rule is read here, so that no click waits for an answer. */
const rhythm = computed<Rhythm | null>(
  () =>
    rhythmOf(said('rule'), start.value) ??
    (preview.value && !isRule.value ? rhythmOf(preview.value.rule, start.value) : null),
)
const zones = Intl.supportedValuesOf('timeZone')

watch(
  () => JSON.stringify(props.from),
  (text) => {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void look(text), preview.value ? PAUSE : 0)
  },
  { immediate: true },
)
onUnmounted(() => window.clearTimeout(timer))

async function look(text: string) {
  const mine = ++newest
  try {
    const answer = await previewTimes(text)
    // An older answer never replaces a newer one, and what is typed keeps the last that was good.
    if (mine !== newest) return
    refused.value = answer.problem
    if (!answer.problem) preview.value = answer
  } catch (e) {
    if (mine === newest) refused.value = (e as Error).message
  }
}

type Parts = { [key: string]: Tree | undefined }

/** The times with some parts set anew; what is empty is left out. */
function changed(parts: Parts): Group {
  const next: Group = {}
  for (const [key, part] of Object.entries({ ...times.value, ...parts })) {
    if (part !== undefined && part !== '' && !(Array.isArray(part) && !part.length)) {
      next[key] = part
    }
  }
  return next
}

/** Words become the rule that they mean, so that what is chosen beside them counts. */
function set(parts: Parts) {
  const read = isRule.value || !preview.value ? {} : ruleRead(preview.value)
  emit('change', { ...props.from, times: changed({ ...read, ...parts }) })
}

function ruleRead(read: TimesPreview): Parts {
  const offDays = read.offDays === 'keep' ? undefined : read.offDays
  return { rule: read.rule, start: read.start, 'off-days': offDays }
}

const value = (event: Event) => (event.target as HTMLInputElement).value
const choose = (next: Rhythm) => set({ rule: ruleOf(next) })
const day = (event: Event) => value(event) && set({ start: value(event) + start.value.slice(10) })
const time = (event: Event) =>
  value(event) && set({ start: `${start.value.slice(0, 10)}T${value(event)}` })

/** Words are read before they count; what cannot be read stays to be mended. */
async function say() {
  const wanted: Parts = {
    rule: words.value.trim(),
    'off-days': undefined,
    calendar: /working day/i.test(words.value) ? said('calendar') || props.calendars[0] : undefined,
  }
  const text = JSON.stringify({ ...props.from, times: changed(wanted) })
  try {
    const read = await previewTimes(text)
    refused.value = read.problem
    if (read.problem) return
    emit('change', { ...props.from, times: changed({ ...wanted, ...ruleRead(read) }) })
    words.value = ''
  } catch (e) {
    refused.value = (e as Error).message
  }
}
function add() {
  if (added.value) set({ also: [...listed('also'), added.value] })
  added.value = ''
}
const without = (time: TimeView) =>
  listed('also').includes(time.said)
    ? set({ also: listed('also').filter((one) => one !== time.said) })
    : set({ without: [...listed('without'), time.said] })
</script>

<template>
  <section class="times" aria-labelledby="times">
    <h3 id="times">
      It begins by itself<template v-if="preview"
        >: <b>{{ preview.sentence }}</b></template
      >
    </h3>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <RhythmChoice v-if="rhythm" :rhythm="rhythm" @change="choose" />
    <p v-else-if="preview" class="saying choices">
      <span class="mid">By the rule</span> <b class="mono">{{ preview.rule }}</b>
    </p>
    <p class="saying choices">
      <label
        ><span class="mid">at</span>
        <input
          class="in"
          type="time"
          aria-label="At what time of day"
          :value="start.slice(11, 16)"
          @change="time"
      /></label>
      <label
        ><span class="mid">in</span>
        <select
          class="in"
          aria-label="In which zone"
          :value="said('zone')"
          @change="set({ zone: value($event) })"
        >
          <option v-if="!zones.includes(said('zone'))" :value="said('zone')">
            {{ said('zone') }}
          </option>
          <option v-for="one in zones" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
      <label
        ><span class="mid">from</span>
        <input
          class="in"
          type="date"
          aria-label="From which day"
          :value="start.slice(0, 10)"
          @change="day"
      /></label>
      <label
        ><span class="mid">until</span>
        <input
          class="in"
          type="date"
          aria-label="Until which day"
          :value="said('last')"
          @change="set({ last: value($event) })"
      /></label>
    </p>
    <form class="saying choices" @submit.prevent="say">
      <label for="in-words" class="mid">or in words</label>
      <input
        id="in-words"
        v-model="words"
        class="in wide"
        placeholder="every fourth Friday, the last working day of each month, every 10 days"
      />
      <button class="btn" :disabled="!words.trim()">Take these</button>
    </form>
    <OffDays
      :off-days="said('off-days') || preview?.offDays || 'keep'"
      :calendar="said('calendar')"
      :calendars="calendars"
      @change="(offDays, calendar) => set({ 'off-days': offDays, calendar })"
    />
    <p class="saying choices"><CatchUp :from="from" @change="emit('change', $event)" /></p>
    <template v-if="preview">
      <TimeList :times="preview.next" :zone="preview.zone" act="Leave out" @act="without" />
      <p v-if="listed('without').length" class="saying choices left-out">
        <span class="mid">Left out:</span>
        <span v-for="one in listed('without')" :key="one"
          >{{ one.replace('T', ' ') }}
          <button
            class="btn bare"
            @click="set({ without: listed('without').filter((other) => other !== one) })"
          >
            Take back in
          </button></span
        >
      </p>
      <form class="saying choices" @submit.prevent="add">
        <label for="one-more" class="mid">One more at</label>
        <input id="one-more" v-model="added" class="in" type="datetime-local" />
        <button class="btn" :disabled="!added">Add it</button>
        <span v-if="preview.zone !== own" class="dim">as clocks there show it</span>
      </form>
    </template>
  </section>
</template>

<style scoped>
.times {
  border-bottom: 1px solid var(--line);
  padding: 0 4px 8px;
  margin-bottom: 8px;
}
h3 {
  margin: 4px 0 8px;
  font-weight: 400;
  font-size: 14px;
}
.wide {
  flex: 1;
  min-width: 200px;
}
.left-out {
  margin-top: 6px;
}
form.saying {
  margin-top: 6px;
}
</style>
