<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { openRow, walkRows } from '@/shared/composables/rows'
import { useSession } from '@/shared/composables/session'
import { counted } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import CardDialog from './CardDialog.vue'
import ColumnsDialog from './ColumnsDialog.vue'
import SavedViews from './SavedViews.vue'
import { readRegister, type Row } from './api'
import { FACETS, valuesOf, type Column } from './columns'
import { columnsOf, csvOf, groupsOf, queryOf, viewOf, type Query, type View } from './view'

/** All bridges, with whose they are and how they do; what is shown stands in the address. */
const route = useRoute()
const router = useRouter()
const { now, zone } = useSession()

/** Each look reads counts of all bridges, so that a burst of changes is one look. */
const PAUSE = 2000
const { data, error, loading, load } = useResource(readRegister)
void load()
onChange(
  () => true,
  () => void load(),
  PAUSE,
)

const view = computed(() =>
  viewOf(
    Object.fromEntries(Object.entries(route.query).map(([key, value]) => [key, String(value)])),
  ),
)
const go = (changed: Partial<View>) => show(queryOf({ ...view.value, ...changed }))
const show = (query: Query) => router.replace({ query })
const showKept = (query: string) => show(Object.fromEntries(new URLSearchParams(query)))
const address = computed(() => new URLSearchParams(queryOf(view.value)).toString())

const rows = computed(() => data.value?.rows ?? [])
const columns = computed(() => columnsOf(view.value))
const groups = computed(() => groupsOf(view.value, rows.value))
const seen = computed(() => [...new Set(groups.value.flatMap((group) => group.rows))])

/** What is chosen from most; the others stand here once the address says them. */
const OFTEN = ['department', 'owner', 'systems', 'condition', 'measured']
const filters = computed(() =>
  FACETS.filter((one) => OFTEN.includes(one.key) || view.value.only[one.key] !== undefined),
)
const valuesIn = (column: Column) =>
  [...new Set(rows.value.flatMap((row) => valuesOf(column, row)))].sort()
function filter(column: Column, event: Event) {
  const only = { ...view.value.only }
  const value = (event.target as HTMLSelectElement).value
  if (value === '*') delete only[column.key]
  else only[column.key] = value
  go({ only })
}
const sortBy = (column: Column) =>
  go(
    view.value.sort === column.key
      ? { down: !view.value.down }
      : { sort: column.key, down: column.number ?? false },
  )
const order = (column: Column) =>
  view.value.sort !== column.key ? 'none' : view.value.down ? 'descending' : 'ascending'

const choosing = ref(false)
const saying = ref<Row | null>(null)
const known = (of: (row: Row) => string[]) =>
  [...new Set(rows.value.flatMap(of))].filter(Boolean).sort()
function said() {
  saying.value = null
  void load()
}

function download() {
  const link = document.createElement('a')
  link.href = `data:text/csv;charset=utf-8,${encodeURIComponent(csvOf(view.value, seen.value))}`
  link.download = 'register.csv'
  link.click()
}
/** What cannot be used is mended on the desk. */
const placeOf = (row: Row) => (row.condition === 'BROKEN' ? 'desk' : 'bridge')
const groupName = (name: string) => name || 'Nobody said'
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="tools">
    <SavedViews :views="data?.views ?? []" :query="address" @show="showKept" @changed="load" />
    <input
      class="in find"
      type="search"
      aria-label="Find in the register"
      placeholder="Name, purpose, owner"
      :value="view.text"
      @input="go({ text: value($event) })"
    />
    <span class="gap"></span>
    <button class="btn" @click="choosing = true">Columns…</button>
    <button class="btn" @click="download">As CSV</button>
  </div>
  <div class="tools">
    <select
      v-for="one in filters"
      :key="one.key"
      class="in"
      :aria-label="one.name"
      :value="view.only[one.key] ?? '*'"
      @change="filter(one, $event)"
    >
      <option value="*">{{ one.all }}</option>
      <option v-for="of in valuesIn(one)" :key="of" :value="of">{{ of || 'nobody said' }}</option>
    </select>
    <select
      class="in"
      aria-label="Group by"
      :value="view.group"
      @change="go({ group: value($event) })"
    >
      <option value="">Not grouped</option>
      <option v-for="one in FACETS" :key="one.key" :value="one.key">
        By {{ one.by ?? one.name.toLowerCase() }}
      </option>
    </select>
  </div>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <p v-if="data && !rows.length" class="mid">No bridge is live yet. Begin with a new one.</p>
  <p v-else-if="data && !seen.length" class="mid" role="status">
    None of {{ counted(rows.length, 'bridge') }} is like that.
    <button class="btn bare" @click="show({})">Show all</button>
  </p>
  <div v-else-if="data" class="wide">
    <table class="rows">
      <thead>
        <tr>
          <th
            v-for="column in columns"
            :key="column.key"
            scope="col"
            :class="{ n: column.number }"
            :aria-sort="order(column)"
          >
            <button class="sort" @click="sortBy(column)">
              {{ column.name
              }}<span v-if="view.sort === column.key" aria-hidden="true">{{
                view.down ? ' ↓' : ' ↑'
              }}</span>
            </button>
          </th>
        </tr>
      </thead>
      <tbody
        v-for="group in groups"
        :key="group.name"
        class="lead"
        @click="openRow"
        @keydown="walkRows"
      >
        <tr v-if="view.group" class="group">
          <th scope="rowgroup" :colspan="columns.length">
            {{ groupName(group.name) }} <span class="mid">{{ group.rows.length }}</span>
          </th>
        </tr>
        <tr v-for="row in group.rows" :key="row.id">
          <td
            v-for="column in columns"
            :key="column.key"
            :class="[column.key, { n: column.number }]"
          >
            <template v-if="column.key === 'name'">
              <RouterLink :to="{ name: placeOf(row), params: { id: row.id } }">{{
                row.name
              }}</RouterLink>
              <span class="purpose mid" :title="row.purpose">{{ row.purpose }}</span>
            </template>
            <button
              v-else-if="column.key === 'owner'"
              class="btn bare"
              :aria-label="`Whose ${row.name} is`"
              @click="saying = row"
            >
              <template v-if="row.owner">{{ row.owner }}</template>
              <span v-else class="dim">say whose…</span>
            </button>
            <span
              v-else-if="column.key === 'measured'"
              :class="row.measured.toLowerCase()"
              :title="row.because"
              >{{ column.text(row, now, zone) }}</span
            >
            <span v-else-if="column.key === 'condition'" :class="row.condition.toLowerCase()">{{
              column.text(row, now, zone)
            }}</span>
            <template v-else>{{ column.text(row, now, zone) }}</template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <CardDialog
    v-if="saying"
    :row="saying"
    :owners="known((row) => [row.owner, row.standIn])"
    :departments="known((row) => [row.department])"
    @close="saying = null"
    @said="said"
  />
  <ColumnsDialog
    v-if="choosing"
    :columns="view.columns"
    @close="choosing = false"
    @chosen="((choosing = false), go({ columns: $event }))"
  />
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.tools select {
  max-width: 180px;
}
.gap {
  flex: 1;
}
.find {
  width: 190px;
}
.sort {
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
.sort:hover {
  text-decoration: underline;
}
.wide {
  overflow-x: auto;
}
td.name {
  width: 100%;
  min-width: 180px;
  max-width: 0;
}
td.name a {
  font-weight: 650;
  color: var(--ink);
}
.purpose {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  font-size: 13px;
}
td.owner .btn {
  padding-left: 0;
}
td.owner .dim {
  font-weight: 400;
}
.group th {
  padding-top: 16px;
  font-weight: 700;
  text-align: left;
}
.held,
.needs_work {
  color: var(--held);
}
.broken,
.not_working {
  color: var(--failed);
}
.nothing_came {
  color: var(--ink-2);
}
</style>
