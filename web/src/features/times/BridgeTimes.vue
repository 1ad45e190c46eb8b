<script setup lang="ts">
import { ref, watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, momentTyped } from '@/shared/format/time'
import RunDialog from './RunDialog.vue'
import TimeList from './TimeList.vue'
import { readTimes, runTime, type TimeView } from './api'
import { useRunNow } from './runNow'

/** When a live bridge begins by itself: what is to come, and what came lately. */
const props = defineProps<{ id: string; target: string }>()
const { now, zone } = useSession()
const { data, error, load } = useResource(() => readTimes(props.id))
const { asked, answer, trace, runAsked } = useRunNow<TimeView>(
  (time) => runTime(props.id, time.at),
  load,
)
const other = ref('')
/** As the clocks of its zone show it. */
function runOther() {
  const at = momentTyped(other.value, data.value!.zone).toISOString()
  asked.value = {
    at,
    local: other.value,
    clock: 'NONE',
    moved: false,
    said: other.value,
    run: false,
  }
}
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)
</script>

<template>
  <p v-if="error" class="bad" role="alert">Its times could not be read: {{ error }}</p>
  <div v-if="data" class="times">
    <section aria-labelledby="to-come">
      <h2 id="to-come">To come</h2>
      <TimeList :times="data.next" :zone="data.zone" act="Run now" @act="asked = $event" />
    </section>
    <section aria-labelledby="lately">
      <h2 id="lately">Lately</h2>
      <p v-if="answer" class="bad" role="alert">{{ answer }}</p>
      <p v-if="trace" role="status">
        It runs now:
        <RouterLink :to="{ name: 'trace', params: { id: trace } }">its trace</RouterLink>
      </p>
      <ul v-if="data.lately.length">
        <li v-for="came in data.lately" :key="came.trace">
          <RouterLink :to="{ name: 'trace', params: { id: came.trace } }">{{
            dayAndTime(came.at, now, zone)
          }}</RouterLink>
          <span v-if="came.what" class="mid"
            >{{ came.made && !came.what.startsWith('run') ? 'missed at first: ' : ''
            }}{{ came.what }}</span
          >
        </li>
      </ul>
      <p v-else class="mid">It did not come so far.</p>
      <form class="saying choices" @submit.prevent="runOther">
        <label
          ><span class="mid">A time that is over</span>
          <input
            v-model="other"
            class="in"
            type="datetime-local"
            aria-label="A time that is over" /></label
        ><button class="btn" :disabled="!other">Run that time…</button>
      </form>
    </section>
  </div>
  <RunDialog v-if="asked" @run="runAsked" @close="asked = null">
    What is made at {{ target }} for
    <b>{{ asked.local.slice(0, 10) }} {{ asked.local.slice(11, 16) }}</b>
  </RunDialog>
</template>

<style scoped>
.times {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 48px;
  margin-bottom: 16px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
  max-width: 260px;
}
li {
  display: grid;
}
</style>
