<script setup lang="ts">
import { computed, ref } from 'vue'
import AddBy from './AddBy.vue'
import TakeAlong from './TakeAlong.vue'
import type { ArrivingGroup, LookupFound, LookupPlace } from './api'
import { isGroup, withKey, type Group, type Tree } from './tree'

/** The second reads that an event needs, with what each found for the event in view. */
const props = defineProps<{
  lookups: Tree | undefined
  found: LookupFound[]
  arriving: ArrivingGroup[]
  places: LookupPlace[]
  bridges: { id: string; name: string }[]
  problems: { path: string; message: string }[]
  /** The collection of the place that an event comes from, where the bridge hears several. */
  here?: string
}>()
const emit = defineEmits<{ change: [lookups: Tree | undefined] }>()
/** What stands for the place that the event came from. */
const HERE = 'place'
const open = ref('')

const all = computed<[string, Group][]>(() =>
  isGroup(props.lookups)
    ? Object.entries(props.lookups).filter((one): one is [string, Group] => isGroup(one[1]))
    : [],
)
const placeOf = (lookup: Group) =>
  props.places.find(
    (place) =>
      `${place.system}/${place.collection}` === (lookup.in === HERE ? props.here : lookup.in),
  )
const choices = computed(() => [
  ...props.places.map((place) => ({
    key: `${place.system}/${place.collection}`,
    words: `${place.record} of ${place.systemName}`,
    hint: place.name,
  })),
  ...props.bridges.map((bridge) => ({
    key: bridge.id,
    words: `task that “${bridge.name}” made`,
    hint: 'its id and link',
  })),
])
const fields = computed(() => props.arriving.flatMap((group) => group.fields))
const byOf = (lookup: Group) => (isGroup(lookup.by) ? Object.entries(lookup.by) : [])
const foundOf = (name: string) => props.found.find((one) => one.name === name)
const problemOf = (name: string) =>
  props.problems.find((one) => one.path.startsWith(`lookups/${name}`))?.message

/** Looked for among the tasks that a bridge made. */
const isOfTasks = (lookup: Group) => lookup.from === 'tasks'
const bridgeName = (lookup: Group) =>
  props.bridges.find((one) => one.id === lookup.in)?.name ?? String(lookup.in)

const WAITS: Record<string, string> = {
  '': 'not at all',
  PT10M: 'for ten minutes',
  PT1H: 'for an hour',
  P1D: 'for a day',
}
const NONE: Record<string, string> = {
  fail: 'it fails',
  'pass-by': 'the event passes by',
  empty: 'it goes on without',
}

function said(name: string): string {
  const found = foundOf(name)
  if (!found) return ''
  const here =
    found.records < 0
      ? 'not asked for this event'
      : found.records === 0
        ? 'nothing found'
        : `${found.records} found`
  return found.askedIn ? `${here}; found for ${found.foundIn} of ${found.askedIn}` : here
}

function put(entries: [string, Group][]) {
  emit('change', entries.length ? Object.fromEntries(entries) : undefined)
}

function set(name: string, next: Group) {
  put(all.value.map(([key, old]) => [key, key === name ? next : old]))
}

function addTasksOf(bridge: string) {
  let name = 'task'
  for (let i = 2; all.value.some(([key]) => key === name); i++) name = `task-${i}`
  const by = { record: fields.value[0]?.address ?? 'event/record' }
  put([...all.value, [name, { in: bridge, from: 'tasks', by, none: 'fail' }]])
  open.value = name
}

function add(place: string) {
  if (props.bridges.some((bridge) => bridge.id === place)) {
    addTasksOf(place)
    return
  }
  const at = props.places.find((one) => `${one.system}/${one.collection}` === place)
  if (!at) return
  const base = at.record.replaceAll(' ', '-')
  let name = base
  for (let i = 2; all.value.some(([key]) => key === name); i++) name = `${base}-${i}`
  const keys = at.by[0] ?? at.eventBy.slice(0, 1)
  const lookup: Group = {
    in: place,
    by: Object.fromEntries(keys.map((key) => [key, fields.value[0]?.address ?? '/id'])),
    none: 'fail',
  }
  if (!at.by.length) lookup.from = 'events'
  put([...all.value, [name, lookup]])
  open.value = name
}

function setKeys(name: string, lookup: Group, keys: string) {
  const old = isGroup(lookup.by) ? lookup.by : {}
  const first = Object.values(old)[0] ?? ''
  set(name, {
    ...lookup,
    by: Object.fromEntries(keys.split('\n').map((key) => [key, old[key] ?? first])),
  })
}

function setOrigin(name: string, lookup: Group, origin: string) {
  const place = placeOf(lookup)
  const keys = origin === 'events' ? place?.eventBy.slice(0, 1) : place?.by[0]
  const next: Group = {
    ...lookup,
    by: Object.fromEntries((keys ?? []).map((key) => [key, byOf(lookup)[0]?.[1] ?? ''])),
  }
  delete next.from
  if (origin === 'events') next.from = 'events'
  set(name, next)
}

/** What is to be made is waited for. */
function setNone(name: string, lookup: Group, none: string) {
  set(name, { ...lookup, none, ...(none === 'make' && !lookup.wait ? { wait: 'PT10M' } : {}) })
}

const value = (event: Event) => (event.target as HTMLInputElement).value
const simple = (tree: Tree | undefined) => typeof tree === 'string'
</script>

<template>
  <div class="lookups">
    <div v-for="[name, lookup] in all" :key="name" class="lookup">
      <button class="head" :aria-expanded="open === name" @click="open = open === name ? '' : name">
        <span class="mid">Looked up</span>
        <b>{{ isOfTasks(lookup) ? 'task' : (placeOf(lookup)?.record ?? lookup.in) }}</b>
        <span class="mid"
          >{{
            isOfTasks(lookup)
              ? `that “${bridgeName(lookup)}” made`
              : lookup.in === HERE
                ? 'of the place that it came from'
                : `of ${placeOf(lookup)?.systemName ?? ''}`
          }}, by
          {{
            byOf(lookup)
              .map(([key]) => key)
              .join(' and ')
          }}</span
        >
        <span class="said" :class="{ bad: foundOf(name)?.records === 0 }">{{ said(name) }}</span>
      </button>
      <p v-if="problemOf(name)" class="bad">{{ problemOf(name) }}</p>
      <div v-if="open === name" class="body">
        <label v-if="!isOfTasks(lookup)"
          ><span>Looked for</span>
          <select
            class="in"
            :value="lookup.from === 'events' ? 'events' : 'system'"
            @change="setOrigin(name, lookup, value($event))"
          >
            <option v-if="placeOf(lookup)?.by.length" value="system">
              in {{ placeOf(lookup)?.systemName }}
            </option>
            <option v-if="placeOf(lookup)?.eventBy.length" value="events">
              among the events received
            </option>
          </select></label
        >
        <label v-if="lookup.from !== 'events' && (placeOf(lookup)?.by.length ?? 0) > 1"
          ><span>By</span>
          <select
            class="in"
            :value="
              byOf(lookup)
                .map(([key]) => key)
                .join('\n')
            "
            @change="setKeys(name, lookup, value($event))"
          >
            <option v-for="keys in placeOf(lookup)?.by" :key="keys.join()" :value="keys.join('\n')">
              {{ keys.join(' and ') }}
            </option>
          </select></label
        >
        <label v-for="[key, rule] in byOf(lookup)" :key="key"
          ><span>{{ key }} is</span>
          <select
            v-if="simple(rule)"
            class="in"
            :value="rule"
            @change="
              set(name, { ...lookup, by: { ...(lookup.by as Group), [key]: value($event) } })
            "
          >
            <option v-for="field in fields" :key="field.address" :value="field.address">
              {{ field.name }} = {{ field.value || '–' }}
            </option>
          </select>
          <span v-else class="mid">a rule of its own; it is edited in the document</span></label
        >
        <label v-if="isOfTasks(lookup)"
          ><span>It is waited for</span>
          <select
            class="in"
            :value="lookup.wait ?? ''"
            @change="set(name, withKey(lookup, 'wait', value($event) || undefined))"
          >
            <option v-if="lookup.wait && !(String(lookup.wait) in WAITS)" :value="lookup.wait">
              {{ lookup.wait }}
            </option>
            <option v-for="(words, span) in WAITS" :key="span" :value="span">{{ words }}</option>
          </select></label
        >
        <label
          ><span>If nothing is found,</span>
          <select
            class="in"
            :value="lookup.none ?? 'fail'"
            @change="setNone(name, lookup, value($event))"
          >
            <option v-for="(words, key) in NONE" :key="key" :value="key">{{ words }}</option>
            <option v-if="isOfTasks(lookup)" value="make">
              “{{ bridgeName(lookup) }}” makes it
            </option>
          </select></label
        >
        <TakeAlong kind="lookup" :name="name" :tree="lookup" />
        <button class="btn bare" @click="put(all.filter(([key]) => key !== name))">
          Remove the lookup
        </button>
      </div>
    </div>
    <AddBy label="Look something up" down :choices="choices" @add="add" />
  </div>
</template>

<style scoped>
.lookups {
  padding: 0 4px 8px;
  border-bottom: 1px solid var(--line);
}
.head {
  display: flex;
  gap: 6px;
  width: 100%;
  border: 0;
  background: none;
  color: var(--ink);
  padding: 4px 0;
  text-align: left;
  cursor: pointer;
}
.said {
  margin-left: auto;
  color: var(--kelp);
  white-space: nowrap;
}
.said.bad {
  color: var(--failed);
}
.body {
  display: grid;
  gap: 6px;
  padding: 4px 0 10px 12px;
  border-left: 2px solid var(--clay);
  justify-items: start;
}
.body label {
  display: grid;
  grid-template-columns: 130px minmax(0, 280px);
  gap: 10px;
  align-items: center;
}
.body label > span:first-child {
  text-align: right;
  color: var(--ink-2);
}
</style>
