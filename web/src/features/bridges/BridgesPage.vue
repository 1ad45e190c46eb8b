<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import { NewBridge, readDrafts } from '@/features/desk'
import { RegisterTable } from '@/features/register'
import { readBridges, readRetired } from './api'

const { now, zone } = useSession()
const { data, load } = useResource(readBridges)
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
      <RouterLink class="hangs" :to="{ name: 'uses' }">What hangs on what</RouterLink>
      <button class="btn main" @click="beginning = true">New bridge…</button>
    </div>
    <NewBridge v-if="beginning" :bridges="data ?? []" @close="beginning = false" />
    <RegisterTable />
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
  gap: 16px;
  align-items: baseline;
  margin-bottom: 8px;
}
.top .btn {
  margin-left: auto;
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
li a {
  font-weight: 650;
  color: var(--ink);
}
</style>
