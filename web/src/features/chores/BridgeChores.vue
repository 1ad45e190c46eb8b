<script setup lang="ts">
import { watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { clockText, placeName } from '@/shared/format/time'
import { capital, counted } from '@/shared/format/words'
import { RunDialog, useRunNow } from '@/features/times'
import { readChores, runChore, type ChoreView } from './api'

/** The rows of a live bridge that come round: what is next, and what rests. */
const props = defineProps<{ id: string; target: string; record: string }>()
const { zone } = useSession()
const { data, error, load } = useResource(() => readChores(props.id))
const { asked, answer, trace, runAsked } = useRunNow<ChoreView>(
  (chore) => runChore(props.id, chore.record, chore.due),
  load,
)
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)

const due = (chore: ChoreView) => {
  const { day, time } = clockText(new Date(`${chore.local.slice(0, 16)}:00Z`), 'UTC')
  return `${day} ${time}`
}
const made = (chore: ChoreView) => {
  const { day, time } = clockText(new Date(chore.make), zone.value)
  return `${day} ${time}`
}
const elsewhere = (chore: ChoreView) => chore.zone !== zone.value
const remarks = (chore: ChoreView) =>
  [
    elsewhere(chore) ? `in ${placeName(chore.zone)}` : '',
    chore.moved ? 'moved from a day off' : '',
    chore.run ? 'run by hand already' : '',
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <p v-if="error" class="bad" role="alert">Its rows could not be read: {{ error }}</p>
  <section v-if="data" class="chores" aria-labelledby="rows">
    <h2 id="rows">
      Rows that come round
      <small
        >{{ counted(data.rows - data.rests, 'row')
        }}{{ data.waits ? `, ${data.waits} waiting until it is done` : ''
        }}{{ data.rests ? `, ${data.rests} at rest` : '' }}</small
      >
    </h2>
    <p v-if="data.problem" class="bad" role="alert">
      {{ data.problem }}
    </p>
    <p v-else-if="data.reading" class="mid" role="status">
      All rows are read just now; {{ counted(data.read, 'row') }} so far.
    </p>
    <p v-if="answer" class="bad" role="alert">{{ answer }}</p>
    <p v-if="trace" role="status">
      It runs now:
      <RouterLink :to="{ name: 'trace', params: { id: trace } }">its trace</RouterLink>
    </p>
    <table v-if="data.next.length" class="timed">
      <thead>
        <tr>
          <th>{{ capital(record) }}</th>
          <th>When it comes round</th>
          <th>Due next</th>
          <th>Made</th>
          <th><span class="unseen">To do</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="chore in data.next" :key="chore.record">
          <td>{{ chore.name }}</td>
          <td class="mid">{{ chore.words }}</td>
          <td class="when">
            {{ due(chore) }}<span v-if="remarks(chore)" class="remark">{{ remarks(chore) }}</span>
          </td>
          <td class="when mid">{{ made(chore) }}</td>
          <td>
            <button
              v-if="!chore.run"
              class="btn bare"
              :aria-label="`Run now: ${chore.name}, ${due(chore)}`"
              @click="asked = chore"
            >
              Run now
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="mid">Nothing comes round so far.</p>
    <details v-if="data.resting.length">
      <summary>{{ counted(data.rests, 'row') }} at rest</summary>
      <ul>
        <li v-for="row in data.resting" :key="row.record">
          <b>{{ row.name }}</b> {{ row.why }}
        </li>
      </ul>
      <p v-if="data.rests > data.resting.length" class="mid">
        and {{ data.rests - data.resting.length }} more
      </p>
    </details>
  </section>
  <RunDialog v-if="asked" @run="runAsked" @close="asked = null">
    What is made at {{ target }} for <b>{{ asked.name }}</b>, due {{ due(asked) }},
  </RunDialog>
</template>

<style scoped>
.chores {
  margin-bottom: 16px;
}
.timed {
  width: 100%;
}
.remark {
  display: block;
  color: var(--held);
  font-size: 13px;
}
details {
  margin-top: 8px;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
</style>
