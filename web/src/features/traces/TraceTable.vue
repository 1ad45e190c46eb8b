<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { dayAndTime, fullTime, span } from '@/shared/format/time'
import { openRow, walkRows } from '@/shared/composables/rows'
import { ordinal } from '@/shared/format/words'
import VerdictText from '@/shared/ui/VerdictText.vue'
import type { TraceSummary } from './api'

defineProps<{ traces: TraceSummary[] }>()
const { now, zone } = useSession()
</script>

<template>
  <p v-if="traces.length === 0" class="none mid">
    No trace fits. Choose a longer time or clear a filter; a new event shows up here by itself.
  </p>
  <table v-else class="rows">
    <caption class="unseen">
      Traces, newest first
    </caption>
    <thead>
      <tr>
        <th scope="col">Arrived</th>
        <th scope="col">Verdict</th>
        <th scope="col" class="title">What</th>
        <th scope="col">Bridge</th>
        <th scope="col">From</th>
        <th scope="col">Task</th>
        <th scope="col" class="n">Took</th>
      </tr>
    </thead>
    <tbody class="lead" @click="openRow" @keydown="walkRows">
      <tr v-for="trace in traces" :key="trace.id">
        <td class="mono" :title="`${fullTime(trace.receivedAt, zone)} ${zone}`">
          {{ dayAndTime(trace.receivedAt, now, zone) }}
        </td>
        <td>
          <VerdictText :verdict="trace.verdict" />
        </td>
        <td class="title">
          <RouterLink :to="{ name: 'trace', params: { id: trace.id } }">{{
            trace.title
          }}</RouterLink>
          <small v-if="trace.reason">
            {{ trace.reason }}
            <template v-if="trace.verdict === 'WAITING'">
              ({{ ordinal(trace.tries) }} try to come)
            </template>
          </small>
          <small v-if="trace.resent" class="dim">sent again since</small>
          <small v-if="trace.trial" class="dim"
            >a try from the desk<template v-if="trace.takenBackAt">, taken back</template></small
          >
        </td>
        <td>{{ trace.bridgeName }}</td>
        <td class="mono id" :title="trace.record">{{ trace.record }}</td>
        <td class="mono id" :title="trace.target ?? ''">{{ trace.target || '–' }}</td>
        <td class="n">{{ trace.millis === null ? '–' : span(trace.millis * 1000) }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.none {
  padding: 16px 0;
}
td.title {
  width: 100%;
  max-width: 0;
  padding-top: 6px;
  padding-bottom: 6px;
}
td.title a {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--ink);
  font-weight: 600;
}
td.id {
  max-width: 15ch;
  overflow: hidden;
  text-overflow: ellipsis;
}
small {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--ink-2);
  font-size: 13px;
  line-height: 18px;
}
</style>
