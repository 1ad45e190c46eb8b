<script setup lang="ts">
import { onMounted } from 'vue'
import { onChange } from '@/shared/composables/live'
import { openRow, walkRows } from '@/shared/composables/rows'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import ResourceState from '@/shared/ui/ResourceState.vue'
import { readRecalls } from './api'
import { came, ofWhom, STATES } from './words'

/** All that was taken back, or is. */
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(readRecalls)
onMounted(() => void load())
onChange(
  () => true,
  () => void load(),
)
</script>

<template>
  <div class="recalls">
    <div class="top">
      <h1>Taken back</h1>
      <RouterLink class="btn main" :to="{ name: 'new-recall' }">Take back…</RouterLink>
    </div>
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <p v-if="data && data.length === 0" class="mid">
      Nothing was taken back yet. What a bridge made by mistake can be listed, looked at and taken
      away again.
    </p>
    <table v-else-if="data" class="rows">
      <thead>
        <tr>
          <th scope="col">What was made by</th>
          <th scope="col">State</th>
          <th scope="col">What came of it</th>
          <th scope="col">Begun</th>
        </tr>
      </thead>
      <tbody class="lead" @click="openRow" @keydown="walkRows">
        <tr v-for="one in data" :key="one.id">
          <td>
            <RouterLink :to="{ name: 'recall', params: { id: one.id } }">{{
              ofWhom(one)
            }}</RouterLink>
          </td>
          <td>{{ STATES[one.state] }}</td>
          <td>{{ came(one.counts) }}</td>
          <td class="mono">{{ one.begunAt ? dayAndTime(one.begunAt, now, zone) : '' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.recalls {
  padding: 14px 20px;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 8px;
}
</style>
