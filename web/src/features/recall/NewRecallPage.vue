<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { momentTyped, placeName, typed } from '@/shared/format/time'
import { readBridges, readRetired } from '@/features/bridges'
import { listMade } from './api'

/** Says what is to be listed: what a bridge made, and when. */
const route = useRoute()
const router = useRouter()
const { now, zone } = useSession()
const { data: bridges, load } = useResource(async () => {
  const [live, retired] = await Promise.all([readBridges(), readRetired()])
  return [
    ...live.map(({ id, name }) => ({ id, name })),
    ...retired.map(({ id, name }) => ({ id, name: `${name} (retired)` })),
  ]
})
const HOUR = 3_600_000
const bridge = ref(String(route.query.bridge ?? ''))
const version = ref('')
const from = ref(typed(new Date(now.value.getTime() - HOUR), zone.value))
// Typed times have no seconds: what was made in this minute is meant, too.
const until = ref(typed(new Date(now.value.getTime() + 60_000), zone.value))
const { busy, error, during } = useActing()
onMounted(() => void load())

async function list() {
  let id = 0
  const listed = await during(async () => {
    const made = await listMade({
      bridge: bridge.value,
      version: version.value ? Number(version.value) : null,
      from: momentTyped(from.value, zone.value).toISOString(),
      until: momentTyped(until.value, zone.value).toISOString(),
    })
    id = made.id
  })
  if (listed) await router.push({ name: 'recall', params: { id } })
}
</script>

<template>
  <div class="wish">
    <h1>Take back what a bridge made</h1>
    <p class="mid">
      First it is listed, with what somebody changed since. Nothing is taken back until you say so.
    </p>
    <form @submit.prevent="list">
      <label>
        <span>Bridge</span>
        <select v-model="bridge" class="in" required>
          <option value="" disabled>Choose one</option>
          <option v-for="one in bridges ?? []" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </label>
      <label>
        <span
          >Made from <small class="mid">{{ placeName(zone) }} time</small></span
        >
        <input v-model="from" class="in" type="datetime-local" required />
      </label>
      <label>
        <span>until</span>
        <input v-model="until" class="in" type="datetime-local" required />
      </label>
      <label>
        <span>Only with version <small class="mid">all if empty</small></span>
        <input v-model="version" class="in" type="number" min="1" />
      </label>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
      <button class="btn main" type="submit" :disabled="busy || !bridge">List what it made</button>
    </form>
  </div>
</template>

<style scoped>
.wish {
  padding: 16px 20px;
  max-width: 560px;
}
form {
  display: grid;
  gap: 14px;
  margin-top: 16px;
  justify-items: start;
}
label span {
  display: block;
  font-weight: 650;
  margin-bottom: 4px;
}
label small {
  font-weight: 400;
}
select {
  min-width: 320px;
}
</style>
