<script setup lang="ts">
import { computed, onUnmounted, ref, watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { age, dayAndTime } from '@/shared/format/time'
import { counted, VERDICT_WORDS } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { readPolls } from '@/features/systems'
import RecordFields from './RecordFields.vue'
import { answerOf } from './answer'
import { fetchRecord, readWhere, type Hearing, type Place } from './api'

/** What is known of one record: at its source, here, and where its task stands. */
const props = defineProps<{ place: Place }>()
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(async () => {
  const [where, polls] = await Promise.all([readWhere(props.place), readPolls()])
  const { system, collection } = props.place
  const poll = polls.find((one) => one.system === system && one.collection === collection)
  return { where, poll }
})
watch(
  () => JSON.stringify(props.place),
  () => {
    data.value = null
    void load()
  },
  { immediate: true },
)
const where = computed(() => data.value?.where ?? null)
const ids = computed(() => new Set((where.value?.bridges ?? []).map((bridge) => bridge.id)))

/** Other systems are asked each time, so that what comes of it is followed for a while alone. */
const FOLLOWED = 20_000
const following = ref(false)
let timer: number | undefined
onChange(
  (change) => following.value && ids.value.has(change.bridge),
  () => following.value && void load(),
  1000,
)
onUnmounted(() => window.clearTimeout(timer))
const { busy, error: refused, during } = useActing()
const fetchNow = () =>
  during(async () => {
    following.value = true
    window.clearTimeout(timer)
    timer = window.setTimeout(() => (following.value = false), FOLLOWED)
    await fetchRecord(props.place)
    await load()
  })

const at = (moment: string) => dayAndTime(moment, now.value, zone.value)
const ORIGINS: Record<string, string> = {
  TOLD: 'told by its source',
  POLLED: 'found by asking',
  DUE: 'its time came',
}
function said(bridge: Hearing): string {
  if (bridge.now === 'CARRIES') return 'Its conditions let it pass as it is now.'
  if (bridge.now === 'PASSES_BY') return `It passes it by as it is now: ${bridge.because}.`
  if (bridge.now === 'FAILS') return `It fails as it is now: ${bridge.because}`
  return 'There is nothing to ask its conditions about.'
}
const traceOf = (bridge: string, event: number) =>
  where.value?.traces.find((trace) => trace.bridgeId === bridge && trace.eventSeq === event)
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <div v-if="where">
    <p class="answer">
      <span role="status">{{ answerOf(where) }}</span>
      <button class="btn bare" :disabled="loading" @click="load">Look again</button>
    </p>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <div class="three">
      <section aria-labelledby="source">
        <h2 id="source">At its source <small>asked now</small></h2>
        <p class="mid">
          <b>{{ place.record }}</b>, {{ where.place }}
        </p>
        <RecordFields :now="where.source" />
        <p v-if="where.tells" class="mid">
          It tells of changes by itself;
          {{
            where.lastReceived
              ? `last something came from there ${age(where.lastReceived, now)} ago.`
              : 'nothing came from there so far.'
          }}
        </p>
        <p v-if="data?.poll" class="mid">
          It is asked for changes;
          {{ data.poll.askedAt ? `last ${at(data.poll.askedAt)}` : 'it never answered so far' }},
          next {{ at(data.poll.nextAt) }}.
          <span v-if="data.poll.problem" class="bad">{{ data.poll.problem }}</span>
        </p>
        <p v-else-if="where.asks" class="mid">It could be asked for changes; no bridge wants it.</p>
        <button v-if="where.fetchable" class="btn" :disabled="busy" @click="fetchNow">
          Take it in as it is now
        </button>
      </section>
      <section aria-labelledby="here">
        <h2 id="here">Here</h2>
        <p v-if="!where.events.length" class="mid">Nothing was received of it.</p>
        <ul v-else>
          <li v-for="event in where.events" :key="event.seq">
            <b>{{ event.kind }}</b> {{ at(event.receivedAt) }}
            <small>{{ ORIGINS[event.origin] }}</small>
          </li>
        </ul>
        <article v-for="bridge in where.bridges" :key="bridge.id">
          <h3>
            <RouterLink :to="{ name: 'bridge', params: { id: bridge.id } }">{{
              bridge.name
            }}</RouterLink>
            <small v-if="bridge.held" class="held">held</small>
          </h3>
          <p v-for="event in where.events.slice(0, 5)" :key="event.seq" class="line">
            <template v-if="traceOf(bridge.id, event.seq)">
              <VerdictMark :kind="traceOf(bridge.id, event.seq)!.verdict ?? 'WAITING'" />
              <RouterLink
                :to="{ name: 'trace', params: { id: traceOf(bridge.id, event.seq)!.id } }"
                >{{
                  VERDICT_WORDS[traceOf(bridge.id, event.seq)!.verdict ?? 'WAITING']
                }}</RouterLink
              >
              <span class="mid"
                >of “{{ event.kind }}” {{ at(event.receivedAt) }}
                {{ traceOf(bridge.id, event.seq)!.reason }}</span
              >
            </template>
            <span v-else class="mid"
              >It did not have “{{ event.kind }}” {{ at(event.receivedAt) }}.</span
            >
          </p>
          <p class="mid">It hears {{ bridge.kinds.join(', ') }}. {{ said(bridge) }}</p>
        </article>
        <p v-if="!where.bridges.length" class="mid">No bridge at work hears of its place.</p>
        <template v-if="where.incidents.length">
          <h3>{{ counted(where.incidents.length, 'incident') }} at these bridges, then or now</h3>
          <p v-for="incident in where.incidents" :key="incident.id">
            <RouterLink :to="{ name: 'incident', params: { id: incident.id } }">{{
              incident.headline
            }}</RouterLink>
            <span class="mid">{{
              incident.closedAt
                ? ` from ${at(incident.openedAt)} to ${at(incident.closedAt)}`
                : ` open since ${at(incident.openedAt)}`
            }}</span>
          </p>
        </template>
      </section>
      <section aria-labelledby="task">
        <h2 id="task">Its task <small>asked now</small></h2>
        <p v-if="!where.tasks.length" class="mid">No task was made of it.</p>
        <article v-for="task in where.tasks" :key="task.bridge + task.task">
          <p class="mid">
            <b>{{ task.task || 'not made yet' }}</b>, {{ task.place }}
            <template v-if="task.stands">: {{ task.stands }}</template>
          </p>
          <RecordFields v-if="task.task" :now="task.now" />
        </article>
      </section>
    </div>
  </div>
</template>

<style scoped>
.answer {
  font-size: 17px;
  font-weight: 650;
  margin: 12px 0;
}
.answer .btn {
  font-size: 14px;
  margin-left: 10px;
}
.three {
  display: grid;
  grid-template-columns: 1fr 1.2fr 1fr;
  gap: 24px;
}
ul {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
p {
  margin: 0 0 6px;
}
article {
  border-top: 1px solid var(--line);
  padding: 8px 0;
}
h3 {
  font-size: 14px;
  margin: 0 0 4px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: baseline;
}
</style>
