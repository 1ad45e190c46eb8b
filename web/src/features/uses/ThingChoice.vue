<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Things, Wanted } from './api'

/** Says what is asked about, as the rest of a sentence. */
const props = defineProps<{ things: Things; wanted: Wanted }>()
const emit = defineEmits<{ change: [wanted: Wanted] }>()

const KINDS: Record<Wanted['kind'], string> = {
  system: 'the system',
  table: 'the table',
  calendar: 'the calendar',
  bridge: 'the tasks of the bridge',
  person: 'the person',
  secret: 'the secret',
}
const system = computed(() => props.things.systems.find((one) => one.id === props.wanted.system))
const collection = computed(() =>
  system.value?.collections.find((one) => one.id === props.wanted.collection),
)
const named = computed(() => {
  if (props.wanted.kind === 'table') return props.things.tables
  if (props.wanted.kind === 'calendar') return props.things.calendars
  if (props.wanted.kind === 'bridge') return props.things.bridges
  return props.things.secrets.map((name) => ({ id: name, name }))
})
const typed = ref(props.wanted.id)
watch(
  () => props.wanted.id,
  (id) => (typed.value = id),
)

const value = (event: Event) => (event.target as HTMLSelectElement).value
const of = (part: Partial<Wanted>) =>
  emit('change', { ...props.wanted, collection: '', field: '', id: '', ...part })

/** The first of its kind, so that something is shown at once. */
function kind(event: Event) {
  const next = value(event) as Wanted['kind']
  const { systems, tables, calendars, bridges, secrets } = props.things
  const first = {
    system: '',
    table: tables[0]?.id ?? '',
    calendar: calendars[0]?.id ?? '',
    bridge: bridges[0]?.id ?? '',
    person: '',
    secret: secrets[0] ?? '',
  }
  of({ kind: next, system: systems[0]?.id ?? '', id: first[next] })
}
</script>

<template>
  <form class="saying" @submit.prevent="of({ id: typed })">
    <span class="mid">on</span>
    <select class="in" aria-label="Kind of thing" :value="wanted.kind" @change="kind">
      <option v-for="(words, key) in KINDS" :key="key" :value="key">{{ words }}</option>
    </select>
    <template v-if="wanted.kind === 'system'">
      <select
        class="in"
        aria-label="System"
        :value="wanted.system"
        @change="of({ system: value($event) })"
      >
        <option v-for="one in things.systems" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <select
        class="in"
        aria-label="Collection"
        :value="wanted.collection"
        @change="of({ collection: value($event) })"
      >
        <option value="">all of it</option>
        <option v-for="one in system?.collections ?? []" :key="one.id" :value="one.id">
          {{ one.name }}
        </option>
      </select>
      <select
        v-if="collection"
        class="in"
        aria-label="Field"
        :value="wanted.field"
        @change="of({ collection: wanted.collection, field: value($event) })"
      >
        <option value="">any field</option>
        <option v-for="one in collection.fields" :key="one.id" :value="one.id">
          {{ one.name === one.id ? one.name : `${one.name} (${one.id})` }}
        </option>
      </select>
    </template>
    <template v-else-if="wanted.kind === 'person'">
      <input
        v-model="typed"
        class="in"
        aria-label="What the person is called"
        placeholder="name, or part of it"
      />
      <button class="btn" type="submit">Look</button>
    </template>
    <select
      v-else
      class="in"
      :aria-label="KINDS[wanted.kind]"
      :value="wanted.id"
      @change="of({ id: value($event) })"
    >
      <option v-for="one in named" :key="one.id" :value="one.id">{{ one.name }}</option>
    </select>
  </form>
</template>

<style scoped>
.saying {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.in {
  max-width: 280px;
}
</style>
