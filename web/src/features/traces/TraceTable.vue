<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { dayAndTime, fullTime, span } from '@/shared/format/time'
import { openRow, walkRows } from '@/shared/composables/rows'
import { ordinal } from '@/shared/format/words'
import VerdictText from '@/shared/ui/VerdictText.vue'
import type { TraceSummary } from './api'
import { canBeChosen } from './useChosen'

/** Traces; where some can be chosen, Space on a row chooses it, Shift with a click a range. */
const props = defineProps<{ traces: TraceSummary[]; chosen?: Set<string>; all?: boolean }>()
const emit = defineEmits<{
  choose: [id: string, on: boolean, range: boolean]
  chooseAll: [on: boolean]
}>()
const { now, zone } = useSession()

function keyed(event: KeyboardEvent) {
  const { chosen } = props
  const row = event.target instanceof HTMLAnchorElement && event.target.closest('tr')
  const id = row ? row.dataset.trace : undefined
  if (chosen && id && event.key === ' ') {
    event.preventDefault()
    emit('choose', id, !chosen.has(id), event.shiftKey)
  } else {
    walkRows(event)
  }
}
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
        <th v-if="chosen" scope="col" class="tick">
          <input
            type="checkbox"
            aria-label="Choose all that can be sent again"
            :checked="all"
            @click="emit('chooseAll', !all)"
          />
        </th>
        <th scope="col">Arrived</th>
        <th scope="col">Verdict</th>
        <th scope="col" class="title">What</th>
        <th scope="col">Bridge</th>
        <th scope="col">From</th>
        <th scope="col">Task</th>
        <th scope="col" class="n">Took</th>
      </tr>
    </thead>
    <tbody class="lead" @click="openRow" @keydown="keyed">
      <tr
        v-for="trace in traces"
        :key="trace.id"
        :data-trace="canBeChosen(trace) ? trace.id : undefined"
      >
        <td v-if="chosen" class="tick">
          <input
            v-if="canBeChosen(trace)"
            type="checkbox"
            :aria-label="`Choose ${trace.title}`"
            :checked="chosen.has(trace.id)"
            @click="emit('choose', trace.id, !chosen.has(trace.id), $event.shiftKey)"
          />
        </td>
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
        <td>
          {{ trace.bridgeName }}<template v-if="trace.place">, {{ trace.place }}</template>
        </td>
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
.tick {
  width: 28px;
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
