<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { counted } from '@/shared/format/words'
import type { Group } from '@/shared/tree'
import { readAlike } from './api'
import { collectionOf, groupOf, said, withPlaces, type How, type Said } from './document'

/** Whether a bridge hears one place or several like it, and which. */
const props = defineProps<{
  doc: Group
  system: string
  /** The collection that it begins at, of several the first. */
  collection: string
  kinds: string[]
  target: string
}>()
const emit = defineEmits<{ change: [doc: Group] }>()

const now = computed(() => said(props.doc))
const find = ref('')
const { data, error, load } = useResource(() =>
  readAlike(props.system, props.collection, props.kinds),
)
watch(
  () => `${props.system}/${now.value.how === 'one' ? props.collection : groupOf(props.collection)}`,
  () => void load(),
  { immediate: true },
)

const table = computed(() => data.value?.tables.find((one) => one.id === now.value.table))
const shown = computed(() => {
  const word = find.value.trim().toLowerCase()
  return (data.value?.places ?? []).filter(
    (place) =>
      !word || place.name.toLowerCase().includes(word) || place.id.toLowerCase().includes(word),
  )
})
/** Names that more than one place has, so that only its id tells it. */
const twice = computed(() => {
  const names = (data.value?.places ?? []).map((place) => place.name)
  return new Set(names.filter((name, i) => names.indexOf(name) !== i))
})
/** Those that are heard and are not there any more, or were not read yet. */
const unknown = computed(() =>
  now.value.ids.filter((id) => !data.value?.places.some((place) => place.id === id)),
)
const every = computed(
  () => shown.value.length > 0 && shown.value.every((place) => now.value.ids.includes(place.id)),
)
const canBeSeveral = computed(() => now.value.how !== 'one' || (data.value?.places.length ?? 0) > 1)

const put = (next: Partial<Said>) => {
  const all = { ...now.value, ...next }
  const first =
    all.how === 'one' ? collectionOf(now.value.of, one.value) : collectionOf(all.of, one.value)
  emit('change', withPlaces(props.doc, all, first, props.target))
}
/** The id of the one place that it began at, or would. */
const one = computed(() => data.value?.id ?? props.collection)

function choose(how: How) {
  const all = (data.value?.places ?? []).map((place) => place.id)
  put({
    how,
    of: data.value?.of ?? '',
    ids: how === 'all' ? all : how === 'named' ? [one.value] : [],
    leftOut: [],
    table: how === 'table' ? (data.value?.tables[0]?.id ?? '') : '',
    column: '',
    take: '',
  })
}
/** In the order of the system; the first stays, since a bridge hears at least one. */
function hear(ids: string[]) {
  const known = (data.value?.places ?? []).map((place) => place.id)
  const asked = ids.length ? ids : now.value.ids.slice(0, 1)
  const wanted = [...unknown.value, ...known].filter((id) => asked.includes(id))
  put({
    ids: wanted,
    leftOut: now.value.how === 'all' ? known.filter((id) => !wanted.includes(id)) : [],
  })
}
const toggle = (id: string, yes: boolean) =>
  hear(now.value.ids.filter((other) => other !== id).concat(yes ? [id] : []))
function toggleAll(yes: boolean) {
  const these = shown.value.map((place) => place.id)
  hear(now.value.ids.filter((id) => !these.includes(id)).concat(yes ? these : []))
}
const value = (event: Event) => (event.target as HTMLInputElement).value
const checked = (event: Event) => (event.target as HTMLInputElement).checked
</script>

<template>
  <section v-if="canBeSeveral || error" class="places" aria-label="Places">
    <p v-if="error" class="bad" role="alert">
      Which places there are could not be read: {{ error }}
    </p>
    <p v-if="canBeSeveral" class="saying">
      <span class="mid">It hears</span>
      <select
        class="in"
        aria-label="Which places it hears"
        :value="now.how"
        @change="choose(value($event) as How)"
      >
        <option value="one">this one place</option>
        <option value="named">places that are named here</option>
        <option value="all">all there are</option>
        <option value="table" :disabled="!data?.tables.length">those of a table</option>
      </select>
      <template v-if="now.how === 'table' && data">
        <select
          class="in"
          aria-label="The table"
          :value="now.table"
          @change="put({ table: value($event), column: '', take: '' })"
        >
          <option v-for="each in data.tables" :key="each.id" :value="each.id">
            {{ each.name }}
          </option>
        </select>
        <span class="mid">which stand in</span>
        <select
          class="in"
          aria-label="The column in which they stand"
          :value="now.column || table?.columns[0]"
          @change="put({ column: value($event) })"
        >
          <option v-for="column in table?.columns ?? []" :key="column" :value="column">
            {{ column }}
          </option>
        </select>
        <span class="mid">and writes to</span>
        <select
          class="in"
          aria-label="Where it writes to"
          :value="now.take"
          @change="put({ take: value($event) })"
        >
          <option value="">one place for all</option>
          <option v-for="column in table?.columns ?? []" :key="column" :value="column">
            the place in {{ column }}
          </option>
        </select>
      </template>
      <span v-if="now.how === 'named' || now.how === 'all'" class="mid" role="status"
        >{{ now.ids.length }} of {{ counted((data?.places.length ?? 0) + unknown.length, 'place')
        }}<template v-if="now.how === 'all'"
          >; one that appears later is offered, and taken by nobody but you</template
        ></span
      >
    </p>
    <template v-if="now.how === 'named' || now.how === 'all'">
      <div class="tools">
        <input
          v-model="find"
          class="in"
          type="search"
          aria-label="Find a place"
          placeholder="Find a place"
        />
        <label
          ><input type="checkbox" :checked="every" @change="toggleAll(checked($event))" /> all that
          are shown</label
        >
      </div>
      <ul tabindex="0" aria-label="Places">
        <li v-for="place in shown" :key="place.id">
          <label
            ><input
              type="checkbox"
              :checked="now.ids.includes(place.id)"
              @change="toggle(place.id, checked($event))"
            />
            <span :title="place.id">{{ place.name }}</span>
            <span v-if="twice.has(place.name)" class="dim mono">{{ place.id }}</span></label
          >
        </li>
        <li v-for="id in unknown" :key="id">
          <label
            ><input type="checkbox" checked @change="toggle(id, checked($event))" />
            <span class="mono">{{ id }}</span> <span class="held">is not there now</span></label
          >
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.saying {
  flex-wrap: wrap;
}
.saying > .mid:not([role]) {
  white-space: nowrap;
}
.places {
  border-bottom: 1px solid var(--sand-2);
  padding-bottom: 6px;
  margin-bottom: 6px;
}
.tools {
  display: flex;
  gap: 16px;
  align-items: center;
  margin: 4px 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 4px 0;
  max-height: 168px;
  overflow: auto;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 2px 12px;
  border-top: 1px solid var(--line);
}
li label {
  white-space: nowrap;
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
}
.held {
  color: var(--held);
}
</style>
