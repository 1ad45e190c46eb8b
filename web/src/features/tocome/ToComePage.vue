<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import ResourceState from '@/shared/ui/ResourceState.vue'
import EntryLine from './EntryLine.vue'
import SubscribeDialog from './SubscribeDialog.vue'
import { readToCome, type Entry } from './api'
import { dayOf, later, longDay, shortDay } from './days'

/** What bridges will make and when, by seven days or as a list of four weeks; all in the address. */
const route = useRoute()
const router = useRouter()
const { now, zone } = useSession()
const subscribing = ref(false)

/** Each look decides all of it, so that a burst of changes is one look. */
const PAUSE = 2000
const WEEK = 7
const LIST = 28
const query = (key: string) => String(route.query[key] ?? '')
const listed = computed(() => query('view') === 'days')
const today = computed(() => dayOf(now.value, zone.value))
const from = computed(() => (/^\d{4}-\d\d-\d\d$/.test(query('from')) ? query('from') : today.value))
const span = computed(() => (listed.value ? LIST : WEEK))
const { data, error, loading, load } = useResource(() => readToCome(from.value, span.value))
watch([from, span], () => void load(), { immediate: true })
onChange(
  (change) => entries.value.some((entry) => entry.bridge === change.bridge),
  () => void load(),
  PAUSE,
)

const go = (changed: Record<string, string>) =>
  router.replace({
    query: Object.fromEntries(
      Object.entries({ ...route.query, ...changed }).filter(([, value]) => value),
    ),
  })

const FILTERS = [
  { key: 'bridge', all: 'Every bridge', of: (entry: Entry) => entry.bridgeName },
  { key: 'system', all: 'Every system', of: (entry: Entry) => entry.system },
  { key: 'person', all: 'Everybody', of: (entry: Entry) => entry.person },
]
const entries = computed(() => data.value?.entries ?? [])
const choices = (of: (entry: Entry) => string, chosen: string) =>
  [...new Set([...entries.value.map(of), chosen])].filter(Boolean).sort()
const shown = computed(() =>
  entries.value.filter((entry) =>
    FILTERS.every(({ key, of }) => !query(key) || of(entry) === query(key)),
  ),
)
const days = computed(() => {
  const all = Array.from({ length: span.value }, (_, i) => later(from.value, i))
  return all
    .map((day) => ({
      day,
      entries: shown.value.filter((entry) => dayOf(entry.at, zone.value) === day),
    }))
    .filter(({ entries }) => !listed.value || entries.length)
})
</script>

<template>
  <div class="heading">
    <h1>What is to come</h1>
    <span class="mid">{{ shortDay(from) }} to {{ shortDay(later(from, span - 1)) }}</span>
    <span class="gap"></span>
    <button class="btn" aria-label="Earlier" @click="go({ from: later(from, -span) })">‹</button>
    <button class="btn" :disabled="!query('from')" @click="go({ from: '' })">Today</button>
    <button class="btn" aria-label="Later" @click="go({ from: later(from, span) })">›</button>
    <button class="btn" @click="go({ view: listed ? '' : 'days' })">
      {{ listed ? 'Seven days' : 'As a list' }}
    </button>
    <button class="btn" @click="subscribing = true">Subscribe…</button>
  </div>
  <div class="filters">
    <select
      v-for="filter in FILTERS"
      :key="filter.key"
      class="in"
      :aria-label="filter.all"
      :value="query(filter.key)"
      @change="go({ [filter.key]: ($event.target as HTMLSelectElement).value })"
    >
      <option value="">{{ filter.all }}</option>
      <option v-for="one in choices(filter.of, query(filter.key))" :key="one" :value="one">
        {{ one }}
      </option>
    </select>
    <span v-if="data?.cut" class="mid" role="status">
      There are more than are shown here; choose fewer days.
    </span>
  </div>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <template v-if="data">
    <div v-if="!listed" class="week">
      <section v-for="one in days" :key="one.day" :aria-label="longDay(one.day)">
        <h2 :class="{ today: one.day === today }">{{ shortDay(one.day) }}</h2>
        <ul v-if="one.entries.length">
          <li v-for="entry in one.entries" :key="entry.uid">
            <EntryLine :entry="entry" :wide="false" />
          </li>
        </ul>
        <p v-else class="dim">nothing</p>
      </section>
    </div>
    <div v-else class="list">
      <section v-for="one in days" :key="one.day" :aria-label="longDay(one.day)">
        <h2 :class="{ today: one.day === today }">{{ longDay(one.day) }}</h2>
        <ul>
          <li v-for="entry in one.entries" :key="entry.uid">
            <EntryLine :entry="entry" wide />
          </li>
        </ul>
      </section>
      <p v-if="!days.length" class="mid">Nothing is to come in these four weeks.</p>
    </div>
  </template>
  <SubscribeDialog v-if="subscribing" @close="subscribing = false" />
</template>

<style scoped>
.filters {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 10px 20px;
}
.week {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  border-top: 1px solid var(--line);
  flex: 1;
}
.week section {
  padding: 8px;
  border-right: 1px solid var(--line);
}
.week section:last-child {
  border-right: 0;
}
h2 {
  font-size: 14px;
  margin: 0 0 8px;
  padding: 0 8px;
}
h2.today {
  box-shadow: inset 0 -2px 0 var(--clay);
}
.week p {
  padding: 0 8px;
}
.list {
  padding: 0 20px 20px;
  max-width: 900px;
}
.list section {
  margin-top: 12px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
</style>
