<script setup lang="ts">
import { onMounted } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import ResourceState from '@/shared/ui/ResourceState.vue'
import { readBridges } from './api'

const { now, zone } = useSession()
const { data, error, loading, load } = useResource(readBridges)
onMounted(() => void load())
</script>

<template>
  <div class="bridges">
    <h1 class="unseen">Bridges</h1>
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <p v-if="data && data.length === 0" class="mid">
      No bridge is live. Put a bridge document into the setup folder and start again.
    </p>
    <table v-else-if="data" class="rows">
      <thead>
        <tr>
          <th scope="col">Bridge</th>
          <th scope="col">Purpose</th>
          <th scope="col">From</th>
          <th scope="col">To</th>
          <th scope="col" class="n">Version</th>
          <th scope="col" class="n">Live since</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="bridge in data" :key="bridge.id">
          <td>
            <RouterLink :to="{ name: 'bridge', params: { id: bridge.id } }">{{
              bridge.name
            }}</RouterLink>
          </td>
          <td>{{ bridge.purpose }}</td>
          <td>{{ bridge.source }}</td>
          <td>{{ bridge.target }}</td>
          <td class="n">{{ bridge.version }}</td>
          <td class="n">{{ dayAndTime(bridge.since, now, zone) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.bridges {
  padding: 14px 20px;
}
td a {
  font-weight: 650;
  color: var(--ink);
}
</style>
