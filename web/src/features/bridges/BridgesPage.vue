<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { openRow, walkRows } from '@/shared/composables/rows'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import ResourceState from '@/shared/ui/ResourceState.vue'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { NewBridge, readDrafts } from '@/features/desk'
import { readBridges, readRetired } from './api'

const { now, zone } = useSession()
const { data, error, loading, load } = useResource(readBridges)
const { data: drafts, load: loadDrafts } = useResource(readDrafts)
const { data: retired, load: loadRetired } = useResource(readRetired)
const beginning = ref(false)
onMounted(() => {
  void load()
  void loadDrafts()
  void loadRetired()
})
</script>

<template>
  <div class="bridges">
    <div class="top">
      <h1>Bridges</h1>
      <button class="btn main" @click="beginning = true">New bridge…</button>
    </div>
    <NewBridge v-if="beginning" :bridges="data ?? []" @close="beginning = false" />
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <p v-if="data && data.length === 0" class="mid">No bridge is live yet. Begin with a new one.</p>
    <table v-else-if="data" class="rows">
      <thead>
        <tr>
          <th scope="col">Bridge</th>
          <th scope="col">Condition</th>
          <th scope="col">Purpose</th>
          <th scope="col">From</th>
          <th scope="col">To</th>
          <th scope="col" class="n">Version</th>
          <th scope="col" class="n">Live since</th>
        </tr>
      </thead>
      <tbody class="lead" @click="openRow" @keydown="walkRows">
        <tr v-for="bridge in data" :key="bridge.id">
          <td>
            <RouterLink :to="{ name: 'bridge', params: { id: bridge.id } }">{{
              bridge.name
            }}</RouterLink>
          </td>
          <td>
            <span v-if="bridge.heldSince" class="held" :title="bridge.heldBecause"
              ><VerdictMark kind="HELD" /> held</span
            >
            <template v-else>live</template>
          </td>
          <td class="purpose">{{ bridge.purpose }}</td>
          <td>{{ bridge.source }}</td>
          <td>{{ bridge.target }}<template v-if="bridge.bothWays">, both ways</template></td>
          <td class="n">{{ bridge.version }}</td>
          <td class="n">{{ dayAndTime(bridge.since, now, zone) }}</td>
        </tr>
      </tbody>
    </table>
    <template v-if="drafts?.length">
      <h2 class="drafts">Drafts</h2>
      <ul>
        <li v-for="draft in drafts" :key="draft.id">
          <RouterLink :to="{ name: 'desk', params: { id: draft.id } }">{{ draft.name }}</RouterLink>
          <span class="mid"> changed {{ dayAndTime(draft.changedAt, now, zone) }}</span>
        </li>
      </ul>
    </template>
    <template v-if="retired?.length">
      <h2 class="drafts">Retired</h2>
      <ul>
        <li v-for="one in retired" :key="one.id">
          <RouterLink :to="{ name: 'desk', params: { id: one.id } }">{{ one.name }}</RouterLink>
          <span class="mid">
            {{ dayAndTime(one.since, now, zone) }}: {{ one.because }}
            <RouterLink :to="{ name: 'traces', query: { bridge: one.id } }">Its traces</RouterLink>
          </span>
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.bridges {
  padding: 14px 20px;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 8px;
}
.drafts {
  margin-top: 24px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.rows .purpose {
  white-space: normal;
  padding-top: 7px;
  padding-bottom: 7px;
}
td a,
li a {
  font-weight: 650;
  color: var(--ink);
}
</style>
