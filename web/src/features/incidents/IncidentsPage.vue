<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import ResourceState from '@/shared/ui/ResourceState.vue'
import IncidentRow from './IncidentRow.vue'
import { readEarlier, readIncidents, type Incident } from './api'

/** All incidents: those that are open, and those that closed. */
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(readIncidents)
const earlier = ref<Incident[]>([])
const next = ref<number | null>(null)
const { busy, error: refused, during } = useActing()

onMounted(async () => {
  await load()
  next.value = data.value?.next ?? null
})
onChange(
  () => true,
  () => void load(),
)

async function more() {
  await during(async () => {
    const page = await readEarlier(next.value!)
    earlier.value.push(...page.closed)
    next.value = page.next
  })
}
const bridges = (one: Incident) => one.bridges.map((bridge) => bridge.name).join(', ')
</script>

<template>
  <div class="incidents">
    <div class="top">
      <h1>Incidents</h1>
      <span class="acts">
        <RouterLink class="btn" to="/recalls">What was taken back</RouterLink>
        <RouterLink class="btn" to="/alarms">Who is told</RouterLink>
      </span>
    </div>
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <template v-if="data">
      <section aria-labelledby="open">
        <h2 id="open">
          Open
          <small v-if="data.openInAll > data.open.length"
            >the {{ data.open.length }} with most that waits, of {{ data.openInAll }}</small
          >
        </h2>
        <p v-if="data.open.length === 0" class="mid">
          None. What fails of one cause opens one, and closes it when nothing of it waits any more.
        </p>
        <ul v-else class="needs">
          <IncidentRow v-for="one in data.open" :key="one.id" :incident="one" @changed="load" />
        </ul>
      </section>
      <section aria-labelledby="closed">
        <h2 id="closed">Closed <small>last closed first</small></h2>
        <p v-if="data.closed.length === 0" class="mid">None yet.</p>
        <table v-else class="rows">
          <thead>
            <tr>
              <th scope="col">Incident</th>
              <th scope="col">Bridges</th>
              <th scope="col">Opened</th>
              <th scope="col">Closed</th>
              <th scope="col" class="n">Came back</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in [...data.closed, ...earlier]" :key="one.id">
              <th scope="row">
                <RouterLink :to="{ name: 'incident', params: { id: one.id } }">{{
                  one.headline
                }}</RouterLink>
              </th>
              <td class="of">{{ bridges(one) }}</td>
              <td class="mono">{{ dayAndTime(one.openedAt, now, zone) }}</td>
              <td class="mono">{{ one.closedAt ? dayAndTime(one.closedAt, now, zone) : '' }}</td>
              <td class="n">{{ one.cameBack || '–' }}</td>
            </tr>
          </tbody>
        </table>
        <button v-if="next" class="btn" :disabled="busy" @click="more">Earlier ones</button>
        <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.incidents {
  padding: 16px 20px;
}
.top {
  display: flex;
  justify-content: space-between;
}
.acts {
  display: flex;
  gap: 8px;
}
section {
  margin: 16px 0;
}
.of {
  white-space: normal;
}
tbody th {
  font-weight: 400 !important;
  font-size: 14px !important;
}
</style>
