<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import DayBars from './DayBars.vue'
import { leaveOut, offerAgain, readPlacesOf, takePlaces, type HeardPlace, type Places } from './api'
import { oddWords, shareOf } from './words'

/** What becomes of each place that a bridge hears, and the places that are offered to it. */
const props = defineProps<{ id: string }>()
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(() => readPlacesOf(props.id))
const { busy, error: refused, during } = useActing()
const chosen = ref<string[]>([])
const cells = reactive<Record<string, Record<string, string>>>({})
const find = ref('')
const only = ref('all')
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)
onChange(
  () => true,
  () => void load(),
)

const BY: Record<string, (places: Places) => string> = {
  named: () => 'They are named in its document.',
  all: () => 'All there are, but for those that were left out.',
  table: (places) => `Those of the table ${places.tableName}.`,
}
const ONLY: Record<string, (place: HeardPlace) => boolean> = {
  all: () => true,
  failing: (place) => place.failed > 0 || place.needAPerson > 0,
  odd: (place) => place.odd !== null,
  silent: (place) => place.last === null,
  gone: (place) => place.gone,
}
const shown = computed(() => {
  const word = find.value.trim().toLowerCase()
  return (data.value?.places ?? []).filter(
    (place) =>
      ONLY[only.value]!(place) &&
      (!word || `${place.name} ${place.id} ${place.to}`.toLowerCase().includes(word)),
  )
})
const byTable = computed(() => data.value?.how === 'table')
const going = computed(() =>
  (data.value?.offered ?? []).filter((place) => chosen.value.includes(place.id)),
)
const all = computed({
  get: () => !!data.value?.offered.length && going.value.length === data.value.offered.length,
  set: (yes) => (chosen.value = yes ? (data.value?.offered ?? []).map((place) => place.id) : []),
})
const cell = (place: string, column: string) => cells[place]?.[column] ?? ''
function write(place: string, column: string, text: string) {
  cells[place] = { ...cells[place], [column]: text }
}

async function act(what: (version: number) => Promise<Places>) {
  await during(async () => {
    data.value = await what(data.value!.version)
    chosen.value = []
  })
}
const take = () =>
  act((version) =>
    takePlaces(
      props.id,
      version,
      going.value.map((place) => ({ id: place.id, cells: cells[place.id] ?? {} })),
    ),
  )
const leave = () =>
  act((version) =>
    leaveOut(
      props.id,
      version,
      going.value.map((place) => place.id),
    ),
  )
const again = (id: string) => act((version) => offerAgain(props.id, version, [id]))
const letGo = (id: string) => act((version) => leaveOut(props.id, version, [id]))
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <div v-if="data" class="page">
    <div class="heading">
      <h1>Places</h1>
      <RouterLink class="mid" :to="{ name: 'bridge', params: { id } }"
        >of {{ data.name }}, version {{ data.version }}</RouterLink
      >
      <span class="mid"
        >{{ counted(data.places.length, 'place') }} of {{ data.systemName }}.
        {{ BY[data.how]!(data) }}</span
      >
      <RouterLink v-if="byTable" :to="{ name: 'table', params: { id: data.table } }"
        >Open the table</RouterLink
      >
    </div>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <section v-if="data.offered.length" class="offered" aria-labelledby="offered">
      <h2 id="offered">
        Offered
        <small
          >{{ counted(data.offered.length, 'place') }} of {{ data.systemName }} that it does not
          hear. What happened there before is not taken.</small
        >
      </h2>
      <div class="acts">
        <label><input v-model="all" type="checkbox" /> all of them</label>
        <button class="btn main" :disabled="busy || !going.length" @click="take">
          {{ going.length > 1 ? `Hear ${going.length} places` : 'Hear it' }}
        </button>
        <button class="btn" :disabled="busy || !going.length" @click="leave">Leave out</button>
      </div>
      <ul>
        <li v-for="place in data.offered" :key="place.id">
          <label class="name"
            ><input v-model="chosen" type="checkbox" :value="place.id" /> <b>{{ place.name }}</b>
            <span class="dim mono">{{ place.id }}</span></label
          >
          <template v-if="chosen.includes(place.id)">
            <label v-for="column in data.columns" :key="column.name" class="cell"
              ><span class="mid">{{ column.name }}</span>
              <input
                class="in"
                :aria-label="`${column.name} of ${place.name}`"
                :value="cell(place.id, column.name)"
                @input="write(place.id, column.name, ($event.target as HTMLInputElement).value)"
            /></label>
          </template>
        </li>
      </ul>
    </section>
    <div class="tools">
      <h2 id="heard">
        Heard <small>{{ shown.length }} of {{ counted(data.places.length, 'place') }}</small>
      </h2>
      <input
        v-model="find"
        class="in"
        type="search"
        aria-label="Find a place"
        placeholder="Find a place"
      />
      <label class="mid"
        >Only
        <select v-model="only" class="in">
          <option value="all">all</option>
          <option value="failing">that failed, or need you</option>
          <option value="odd">far from usual</option>
          <option value="silent">of which nothing came yet</option>
          <option value="gone">that are not there any more</option>
        </select></label
      >
    </div>
    <div class="scroll" tabindex="0" role="region" aria-labelledby="heard">
      <table class="rows">
        <thead>
          <tr>
            <th scope="col">Place</th>
            <th scope="col">Writes to</th>
            <th scope="col">Events of 24 hours</th>
            <th scope="col" class="number">Created</th>
            <th scope="col" class="number">Updated</th>
            <th scope="col" class="number">Nothing to do</th>
            <th scope="col" class="number">Failed</th>
            <th scope="col" class="number">Waiting</th>
            <th scope="col">Of its ceiling</th>
            <th scope="col">Last event</th>
            <th scope="col"><span class="unseen">What can be done</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="place in shown" :key="place.collection">
            <th scope="row">
              <RouterLink
                :to="{ name: 'traces', query: { bridge: id, place: place.collection } }"
                :title="place.id"
                >{{ place.name }}</RouterLink
              >
              <span v-if="place.gone" class="held">is not there any more</span>
            </th>
            <td>{{ place.to }}</td>
            <td>
              <DayBars :counts="place.halfHours" />
              <span v-if="place.odd" class="held">{{ oddWords(place.odd, now, zone) }}</span>
            </td>
            <td class="number">{{ place.made || '–' }}</td>
            <td class="number">{{ place.changed || '–' }}</td>
            <td class="number">{{ place.nothing || '–' }}</td>
            <td class="number" :class="{ failed: place.failed }">
              {{ place.failed || '–' }}
              <RouterLink
                v-if="place.needAPerson"
                class="needs"
                :to="{
                  name: 'traces',
                  query: { bridge: id, place: place.collection, verdict: 'needs-you' },
                }"
                >{{ place.needAPerson }} need you</RouterLink
              >
            </td>
            <td class="number">{{ place.underWay || '–' }}</td>
            <td>{{ shareOf(place, data) }}</td>
            <td class="mid">
              {{ place.last ? dayAndTime(place.last, now, zone) : 'none yet' }}
            </td>
            <td>
              <button
                v-if="data.how === 'all' && data.places.length > 1"
                class="btn bare quiet"
                :aria-label="`Hear ${place.name} no more`"
                :disabled="busy"
                @click="letGo(place.id)"
              >
                Hear no more
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="!shown.length" class="mid">No place is like that.</p>
    <section v-if="data.leftOut.length" aria-labelledby="left-out">
      <h2 id="left-out">Left out</h2>
      <p class="left">
        <span v-for="place in data.leftOut" :key="place.id"
          >{{ place.name }}
          <button
            class="btn bare"
            :aria-label="`Offer ${place.name} again`"
            :disabled="busy"
            @click="again(place.id)"
          >
            Offer again
          </button></span
        >
      </p>
    </section>
  </div>
</template>

<style scoped>
.page {
  padding: 0 20px 20px;
}
.page .heading {
  margin: 0 -20px 10px;
}
.offered {
  border-left: 3px solid var(--held);
  padding: 2px 0 6px 12px;
  margin-bottom: 14px;
}
.offered ul {
  list-style: none;
  margin: 0;
  padding: 0 0 4px;
  max-height: 220px;
  overflow: auto;
}
.offered li {
  display: flex;
  gap: 6px 16px;
  align-items: center;
  flex-wrap: wrap;
  padding: 3px 0;
  border-top: 1px solid var(--sand-2);
}
.name {
  min-width: 240px;
}
.cell {
  display: flex;
  gap: 6px;
  align-items: center;
}
.acts,
.tools {
  display: flex;
  gap: 14px;
  align-items: center;
  margin: 6px 0;
}
.tools h2 {
  flex: 1;
  margin: 0;
}
.number {
  text-align: right;
}
td.failed {
  color: var(--failed);
}
.needs {
  margin-left: 6px;
}
.held {
  color: var(--held);
  font-weight: 400;
  margin-left: 6px;
}
tbody th {
  text-align: left;
  font-size: inherit;
}
.name .mono {
  margin-left: 6px;
}
/* It stands in each row, and is wanted once in a while. */
.quiet {
  color: var(--ink-2);
  font-weight: 400;
}
#left-out {
  margin-top: 18px;
}
.left {
  display: flex;
  gap: 4px 20px;
  flex-wrap: wrap;
}
</style>
