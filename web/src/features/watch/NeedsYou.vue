<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/shared/composables/session'
import { age, dayAndTime, dayText } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { IncidentRow, type Incident } from '@/features/incidents'
import type { Trouble } from '@/features/systems'
import type { TestLine } from '@/features/tests'
import type {
  BridgeLine,
  BrokenLine,
  CheckLine,
  EndingLine,
  NoRoom,
  OfferedPlaces,
  UnreadableLine,
} from './api'

const props = withDefaults(
  defineProps<{
    incidents: Incident[]
    inAll?: number
    bridges: BridgeLine[]
    troubles: Trouble[]
    unreadable?: UnreadableLine[]
    blind?: string
    untold?: string
    twice?: number
    apart?: number
    checks?: CheckLine[]
    broken?: BrokenLine[]
    calendars?: EndingLine[]
    places?: OfferedPlaces[]
    tests?: TestLine[]
    noRoom?: NoRoom | null
  }>(),
  {
    inAll: 0,
    unreadable: () => [],
    blind: '',
    untold: '',
    twice: 0,
    apart: 0,
    checks: () => [],
    broken: () => [],
    calendars: () => [],
    places: () => [],
    tests: () => [],
    noRoom: null,
  },
)
const emit = defineEmits<{ changed: [] }>()

const count = computed(
  () =>
    Math.max(props.inAll, props.incidents.length) +
    held.value.length +
    props.troubles.length +
    props.unreadable.length +
    props.broken.length +
    props.calendars.length +
    props.places.length +
    props.tests.length +
    (props.blind ? 1 : 0) +
    (props.untold ? 1 : 0) +
    (props.twice ? 1 : 0) +
    (props.apart ? 1 : 0) +
    props.checks.length +
    (props.noRoom ? 1 : 0),
)
/** Those that people hold; what holds itself is an incident. */
const held = computed(() =>
  props.bridges.filter(
    (line) => line.heldSince !== null && !props.incidents.some((one) => one.heldBridge === line.id),
  ),
)
const { now, zone } = useSession()

/** So many tests leave room for the bridges below. */
const MOST_TESTS = 5

/** What of a calendar ends, and when. */
function endOf(one: EndingLine): string {
  const year = one.last.slice(0, 4)
  if (one.part === 'HOLIDAYS') return `names no holidays after ${year}`
  if (one.part === 'CLOSURES') return `names no closures after ${year}`
  return `is entered up to ${dayText(one.last, 'UTC')}`
}

/** Those that Watch does not list. */
const more = computed(() => props.inAll - props.incidents.length)
</script>

<template>
  <section aria-labelledby="needs">
    <h2 id="needs">
      Needs you <small v-if="count">most first</small>
      <RouterLink class="all" to="/incidents">All incidents</RouterLink>
    </h2>
    <p v-if="count === 0" class="calm mid">
      Nothing waits for a person. What fails shows up here, with its cause and what to do.
    </p>
    <ul v-else class="needs">
      <li v-if="noRoom">
        <VerdictMark kind="FAILED" />
        <p>
          <b>The disk is nearly full</b>: everything stands still
          <small
            >{{ noRoom.text }} Make room, and everything goes on by itself. Whoever sends webhooks
            is told to send them again.</small
          >
        </p>
        <span class="mono dim" :title="dayAndTime(noRoom.since, now, zone)">
          for {{ age(noRoom.since, now) }}
        </span>
        <span></span>
      </li>
      <IncidentRow
        v-for="one in incidents"
        :key="one.id"
        :incident="one"
        @changed="emit('changed')"
      />
      <li v-if="more > 0">
        <VerdictMark kind="FAILED" />
        <p>
          <b>{{ counted(more, 'incident') }} more</b>, each with less that waits
        </p>
        <span></span>
        <RouterLink class="btn" to="/incidents">See all incidents</RouterLink>
      </li>
      <li v-if="untold">
        <VerdictMark kind="FAILED" />
        <p>
          <b>Nobody could be told of incidents</b>: it is tried again
          <small>{{ untold }}</small>
        </p>
        <span></span>
        <RouterLink class="btn" to="/alarms">See who is told</RouterLink>
      </li>
      <li v-if="blind">
        <VerdictMark kind="FAILED" />
        <p>
          <b>Incidents cannot be looked at</b>: what fails now may not show up here
          <small>{{ blind }} The log says more; Traces shows every failure.</small>
        </p>
        <span></span>
        <RouterLink
          class="btn"
          :to="{ name: 'traces', query: { verdict: 'needs-you', span: '30d' } }"
          >See the traces</RouterLink
        >
      </li>
      <li v-for="one in broken" :key="one.id">
        <VerdictMark kind="FAILED" />
        <p>
          <b>{{ one.id }}</b> cannot be used any more<template v-if="one.waiting"
            >, {{ counted(one.waiting, 'event') }} wait</template
          >
          <small>{{ one.problem }}</small>
        </p>
        <span></span>
        <RouterLink class="btn" :to="{ name: 'desk', params: { id: one.id } }"
          >Mend it on the desk</RouterLink
        >
      </li>
      <li v-for="one in calendars" :key="`calendar ${one.id}`">
        <VerdictMark kind="HELD" />
        <p>
          <b>{{ one.name }}</b> {{ endOf(one) }}
          <small
            >{{ one.bridges.join(', ') }} {{ one.bridges.length === 1 ? 'counts' : 'count' }} on it.
            {{
              one.part === 'CLOSURES'
                ? 'Enter the next ones, or say up to when all days off are entered.'
                : 'Enter those of the next year, or read them from a file.'
            }}</small
          >
        </p>
        <span></span>
        <RouterLink class="btn" :to="{ name: 'calendar', params: { id: one.id } }"
          >Open the calendar</RouterLink
        >
      </li>
      <li v-for="one in unreadable" :key="one.system">
        <VerdictMark kind="FAILED" />
        <p>
          <b>{{ one.system }}</b>: its document cannot be read<template v-if="one.waiting"
            >, {{ one.waiting.toLocaleString('en') }} for it wait</template
          >
          <small>{{ one.problem }}</small>
        </p>
        <span class="mono dim" :title="dayAndTime(one.since, now, zone)">
          for {{ age(one.since, now) }}
        </span>
        <RouterLink class="btn" :to="{ name: 'system-document', params: { id: one.system } }"
          >Mend its document</RouterLink
        >
      </li>
      <li v-for="one in troubles" :key="one.system + one.where">
        <VerdictMark kind="FAILED" />
        <p>
          <b>{{ one.name }}</b><template v-if="one.where">, {{ one.where }}</template> does not
          answer as it should
          <small>{{ one.problem }}</small>
        </p>
        <span></span>
        <RouterLink class="btn" :to="{ name: 'systems' }">See the system</RouterLink>
      </li>
      <li v-for="line in held" :key="line.id">
        <VerdictMark kind="HELD" />
        <p>
          <b>{{ line.name }}</b> is held<template v-if="line.waiting"
            >, {{ counted(line.waiting, 'event') }}
            {{ line.waiting === 1 ? 'waits' : 'wait' }}</template
          >
          <small>{{ line.heldBecause }}</small>
        </p>
        <span class="mono dim" :title="dayAndTime(line.heldSince!, now, zone)">
          for {{ age(line.heldSince!, now) }}
        </span>
        <RouterLink class="btn" :to="{ name: 'bridge', params: { id: line.id } }"
          >See the bridge</RouterLink
        >
      </li>
      <li v-if="apart">
        <VerdictMark kind="DISAGREE" />
        <p>
          Both sides disagree in <b>{{ counted(apart, 'field') }}</b>
          <small>Both keep what they have until you say what is right</small>
        </p>
        <span></span>
        <RouterLink class="btn" :to="{ name: 'pairs', query: { show: 'disagreements' } }"
          >Say what is right</RouterLink
        >
      </li>
      <li v-for="one in checks" :key="`check ${one.bridge}`">
        <VerdictMark :kind="one.problem ? 'FAILED' : 'DISAGREE'" />
        <p v-if="one.problem">
          <b>{{ one.name }}</b>: its full check broke off
          <small>{{ one.problem }}</small>
        </p>
        <p v-else>
          <b>{{ counted(one.open, 'difference') }}</b> between both sides of {{ one.name }}
          <small>Found by a full check; nothing told of them, so that nothing was carried</small>
        </p>
        <span class="mono dim" :title="dayAndTime(one.begunAt, now, zone)">
          {{ age(one.begunAt, now) }} ago
        </span>
        <RouterLink class="btn" :to="{ name: 'full-check', params: { id: one.bridge } }"
          >See what differs</RouterLink
        >
      </li>
      <li v-for="one in places" :key="`places ${one.bridge}`">
        <VerdictMark kind="HELD" />
        <p>
          <b>{{ one.name }}</b>: {{ counted(one.names.length, 'place') }} of {{ one.systemName }}
          {{ one.names.length === 1 ? 'is' : 'are' }} offered to it
          <small
            >{{ one.names.slice(0, 4).join(', ') }}{{ one.names.length > 4 ? ' and others' : '' }}.
            Nothing of them is carried until you say so.</small
          >
        </p>
        <span></span>
        <RouterLink class="btn" :to="{ name: 'places', params: { id: one.bridge } }"
          >See them</RouterLink
        >
      </li>
      <li v-for="(one, i) in tests.slice(0, MOST_TESTS)" :key="`test ${i}`">
        <VerdictMark :kind="one.failedOn ? 'FAILED' : 'HELD'" />
        <p>
          <b>{{ one.name }}</b>: the test “{{ one.what }}”
          {{ one.failedOn ? `failed on ${dayText(one.failedOn, 'UTC')}` : 'is due' }}
          <small
            >{{ one.owner ? `${one.owner} tests it.` : 'Nobody is said to test it.' }}
            {{ one.words }}</small
          >
        </p>
        <span v-if="one.dueOn" class="mono dim">since {{ dayText(one.dueOn, 'UTC') }}</span>
        <span v-else></span>
        <RouterLink class="btn" :to="{ name: 'bridge', params: { id: one.bridge }, hash: '#tests' }"
          >See the test</RouterLink
        >
      </li>
      <li v-if="tests.length > MOST_TESTS">
        <VerdictMark kind="HELD" />
        <p>
          <b>{{ counted(tests.length - MOST_TESTS, 'test') }} more</b>
          {{ tests.length === MOST_TESTS + 1 ? 'is' : 'are' }} due or failed
        </p>
        <span></span>
        <RouterLink
          class="btn"
          :to="{ name: 'bridges', query: { sort: 'tests', columns: 'owner,measured,tests' } }"
          >See all that are due</RouterLink
        >
      </li>
      <li v-if="twice">
        <VerdictMark kind="DUPLICATE" />
        <p>
          <b>{{ counted(twice, 'task') }}</b> may be there twice
          <small>Each reads nearly like another open one</small>
        </p>
        <span></span>
        <RouterLink class="btn" :to="{ name: 'pairs', query: { show: 'duplicates' } }"
          >See them side by side</RouterLink
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 18px;
}
.calm {
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.all {
  font-size: 13px;
  font-weight: 400;
  margin-left: 8px;
}
h2 small {
  display: inline;
}
</style>
