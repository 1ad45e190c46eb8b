<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useResource } from '@/shared/composables/resource'
import { openRow, walkRows } from '@/shared/composables/rows'
import OverDialog from '@/shared/ui/OverDialog.vue'
import ResourceState from '@/shared/ui/ResourceState.vue'
import { keepCalendar, keepTable, readCalendars, readTables } from './api'

/** The reference tables and working calendars that rules look things up in. */
const router = useRouter()
const { data: tables, error, loading, load } = useResource(readTables)
const { data: calendars, load: loadCalendars } = useResource(readCalendars)
const making = ref<'' | 'table' | 'calendar'>('')
const name = ref('')
const refused = ref('')
onMounted(() => {
  void load()
  void loadCalendars()
})

const id = computed(() =>
  name.value
    .normalize('NFD')
    .toLowerCase()
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, ''),
)

function begin(what: 'table' | 'calendar') {
  making.value = what
  name.value = ''
  refused.value = ''
}

async function make() {
  try {
    if (making.value === 'table') {
      await keepTable(id.value, {
        name: name.value.trim(),
        keys: ['key'],
        values: [{ name: 'value', type: 'text' }],
        ignoreCase: 'true',
        notFound: '',
        use: '',
        csv: 'key,value\r\n',
        basedOn: 0,
      })
      await router.push({ name: 'table', params: { id: id.value } })
    } else {
      await keepCalendar(id.value, {
        name: name.value.trim(),
        weekdays: ['monday', 'tuesday', 'wednesday', 'thursday', 'friday'],
        holidays: [],
        closures: [],
        enteredUntil: null,
        basedOn: 0,
      })
      await router.push({ name: 'calendar', params: { id: id.value } })
    }
  } catch (e) {
    refused.value = (e as Error).message
  }
}
const years = (first: number | null | undefined, last: number | null | undefined) =>
  first == null ? 'none' : first === last ? `${first}` : `${first} to ${last}`
</script>

<template>
  <div class="tables">
    <div class="top">
      <h1>Tables and calendars</h1>
      <button class="btn" @click="begin('calendar')">New calendar…</button>
      <button class="btn main" @click="begin('table')">New table…</button>
    </div>
    <ResourceState :loading="loading" :error="error" :has="tables !== null" @retry="load" />
    <table v-if="tables?.length" class="rows">
      <thead>
        <tr>
          <th scope="col">Table</th>
          <th scope="col">Looked up by</th>
          <th scope="col" class="n">Rows</th>
          <th scope="col" class="n">Asked for in vain</th>
        </tr>
      </thead>
      <tbody class="lead" @click="openRow" @keydown="walkRows">
        <tr v-for="table in tables" :key="table.id">
          <td>
            <RouterLink :to="{ name: 'table', params: { id: table.id } }">{{
              table.name
            }}</RouterLink>
          </td>
          <td>{{ table.keys.join(', ') }}</td>
          <td class="n">{{ table.rows }}</td>
          <td class="n">
            <span v-if="table.unknownKeys" class="held">{{
              table.unknownKeys === 1 ? '1 key' : `${table.unknownKeys} keys`
            }}</span>
            <span v-else class="dim">none</span>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="tables" class="mid">
      No table yet. A table says who gets what, or what is called how.
    </p>
    <table v-if="calendars?.length" class="rows second">
      <thead>
        <tr>
          <th scope="col">Calendar</th>
          <th scope="col">Years with days off</th>
          <th scope="col" class="n">Holidays</th>
          <th scope="col" class="n">Closures</th>
        </tr>
      </thead>
      <tbody class="lead" @click="openRow" @keydown="walkRows">
        <tr v-for="calendar in calendars" :key="calendar.id">
          <td>
            <RouterLink :to="{ name: 'calendar', params: { id: calendar.id } }">{{
              calendar.name
            }}</RouterLink>
          </td>
          <td>{{ years(calendar.firstYear, calendar.lastYear) }}</td>
          <td class="n">{{ calendar.holidays }}</td>
          <td class="n">{{ calendar.closures }}</td>
        </tr>
      </tbody>
    </table>
    <OverDialog v-if="making" :title="`A new ${making}`" @close="making = ''">
      <form id="make" @submit.prevent="make">
        <label class="name"
          ><span>What people call it</span>
          <input v-model="name" class="in" maxlength="80" required autofocus
        /></label>
        <p v-if="id" class="mid">
          Rules and documents call it <b class="mono">{{ id }}</b>
        </p>
        <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
      </form>
      <template #acts="{ close }">
        <button class="btn" @click="close()">Not now</button>
        <button class="btn main" type="submit" form="make" :disabled="!id">Make it</button>
      </template>
    </OverDialog>
  </div>
</template>

<style scoped>
.tables {
  padding: 14px 20px;
}
.tables table th:first-child {
  width: 44%;
}
.tables table th:nth-child(2) {
  width: 26%;
}
.top {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
}
.top h1 {
  flex: 1;
}
.second {
  margin-top: 26px;
}
.held {
  color: var(--held);
}
.name span {
  display: block;
  font-weight: 650;
  margin-bottom: 4px;
}
.name input {
  width: 100%;
}
</style>
