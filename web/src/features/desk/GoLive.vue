<script setup lang="ts">
import { computed, ref } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, everyText, momentText, spanText } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { inSpan, manyOf, origin, telling } from '@/features/ceiling'
import { CircleList } from '@/features/loops'
import { LastRehearsal } from '@/features/rehearsal'
import RuleDifferences from '@/shared/ui/RuleDifferences.vue'
import { differs } from './reasons'
import { computeProof, lookAtGoing, unpin, type LoadView, type TrialView } from './api'

/** What going live would change and cost, before it does. */
const props = defineProps<{
  id: string
  text: string
  trial: TrialView
  liveVersion: number | null
  error: string
}>()
const emit = defineEmits<{ go: [acceptExamples: boolean, acceptLoops: boolean]; close: [] }>()
const { now, zone } = useSession()
const accept = ref(false)

const proof = useResource(() => computeProof(props.id, props.text))
const going = useResource(() => lookAtGoing(props.id, props.text))
const blocked = computed(() => props.trial.problems.length > 0)
if (!blocked.value) {
  void proof.load()
  void going.load()
}

const rows = computed(() => proof.data.value?.rows ?? [])
const differing = computed(() => rows.value.filter(differs))
const failing = computed(() => rows.value.filter((row) => row.verdict === 'failed').length)
const byField = computed(() =>
  (proof.data.value?.columns ?? [])
    .map((column, i) => ({
      name: column.name,
      count: rows.value.filter((row) => row.cells[i]!.live != null).length,
    }))
    .filter((one) => one.count > 0),
)
const look = computed(() => going.data.value)
/** Whether two places are kept alike, of which no event tells by itself what comes of it. */
const bothWays = computed(() => 'between' in (JSON.parse(props.text) as object))
const broken = computed(() => (look.value?.examples ?? []).filter((one) => !one.holds))
const endless = computed(() => look.value?.circles.some((one) => one.end === 'DOES_NOT_STOP'))
const untold = computed(() => look.value?.circles.some((one) => one.end === 'CANNOT_BE_TOLD'))
const sure = ref(false)
const waits = computed(
  () =>
    blocked.value ||
    loading.value ||
    (broken.value.length > 0 && !accept.value) ||
    endless.value ||
    (untold.value && !sure.value),
)
const loading = computed(() => proof.loading.value || going.loading.value)

const nameOf = (key: string) => props.trial.leaving.find((field) => field.key === key)?.name ?? key
const limitText = (load: LoadView) =>
  load.limitCalls == null
    ? 'it names no limit'
    : `it allows ${load.limitCalls.toLocaleString('en')} in ${spanText(load.limitSeconds! * 1000)}, ${load.limitPerDay!.toLocaleString('en')} a day`
const waitText = (load: LoadView) =>
  load.longestWaitMillis === 0
    ? 'no event would have waited for it'
    : `the longest wait would have been ${spanText(load.longestWaitMillis)}, for the event of ${dayAndTime(load.longestWaitOf!, now.value, zone.value)}`

async function remove(example: string) {
  await unpin(props.id, example)
  await going.load()
}
</script>

<template>
  <OverDialog
    wide
    :title="
      liveVersion === null ? 'Put the bridge to work' : `Put version ${liveVersion + 1} to work`
    "
    @close="emit('close')"
  >
    <template v-if="blocked">
      <p>It cannot go live yet:</p>
      <ul>
        <li v-for="problem in trial.problems" :key="problem.path + problem.message" class="bad">
          {{ problem.message }}
        </li>
      </ul>
    </template>
    <template v-else>
      <ResourceState
        :loading="loading"
        :error="proof.error.value || going.error.value"
        :has="proof.data.value !== null && look !== null"
        @retry="going.load().then(proof.load)"
      />
      <template v-if="look && proof.data.value">
        <template v-if="liveVersion !== null">
          <h3>Rules that change</h3>
          <RuleDifferences v-if="look.changes.length" :differences="look.changes" />
          <p v-else class="mid">none: it says what version {{ liveVersion }} says</p>
        </template>
        <h3>Results</h3>
        <p v-if="rows.length === 0">
          {{ bothWays ? 'No task was found' : 'No event was received yet' }}, so nothing is
          compared.
        </p>
        <p v-else>
          Of {{ counted(rows.length, bothWays ? 'pair' : 'event') }}, {{ failing || 'none' }} would
          fail<template v-if="liveVersion !== null"
            >, and {{ differing.length || 'none' }} would come out other than with version
            {{ liveVersion }}</template
          ><template v-if="byField.length"
            >: {{ byField.map((one) => `${one.name} in ${one.count}`).join(', ') }}</template
          >.
        </p>
        <p v-for="remark in trial.remarks" :key="remark" class="mid">! {{ remark }}</p>
        <template v-if="!bothWays">
          <h3>Rehearsal</h3>
          <LastRehearsal :id="id" />
        </template>
        <h3>Pinned examples</h3>
        <p v-if="!look.examples.length" class="mid">
          none: pin
          {{ bothWays ? 'a pair on the proof sheet' : 'an event with its result at Leaving' }}, and
          it is checked here each time
        </p>
        <p v-else-if="!broken.length">
          {{
            look.examples.length === 1
              ? 'The one example holds.'
              : `All ${look.examples.length} hold.`
          }}
        </p>
        <template v-else>
          <ul class="examples">
            <li v-for="example in broken" :key="example.id">
              <span>
                <b>{{ example.name }}</b> does not hold:
                <span v-for="one in example.differences" :key="one.what" class="difference">
                  {{ nameOf(one.what) }} is “{{ momentText(one.found, zone) }}”, expected “{{
                    momentText(one.expected, zone)
                  }}”
                </span>
              </span>
              <button class="btn bare" @click="remove(example.id)">Unpin</button>
            </li>
          </ul>
          <label
            ><input v-model="accept" type="checkbox" /> take the new results as expected from now
            on</label
          >
        </template>
        <template v-if="look.circles.length">
          <h3>What comes back to it</h3>
          <CircleList :circles="look.circles" />
          <p v-if="endless" class="bad" role="alert">
            So it cannot go live. Add a condition that its own writing does not meet, or let it not
            hear of its own writing.
          </p>
          <label v-else-if="untold"
            ><input v-model="sure" type="checkbox" /> I know that it comes to an end</label
          >
        </template>
        <h3>What it asks of the systems</h3>
        <p v-if="!look.events" class="mid">No event was received yet to reckon it from.</p>
        <template v-else>
          <p class="mid">
            reckoned from {{ counted(look.events, 'event') }} on {{ counted(look.days, 'day')
            }}<template v-if="bothWays">, each as two tasks read and one made or changed</template>
          </p>
          <ul>
            <li v-for="load in look.loads" :key="load.system">
              <b>{{ load.system }}</b>: {{ counted(load.callsPerDay, 'call') }} a day,
              {{ load.callsOnBusiestDay }} on the busiest; {{ limitText(load) }};
              {{ waitText(load) }}.
            </li>
            <li v-for="limit in telling(look.ceiling.limits)" :key="limit.kind">
              It would have come to at most {{ manyOf(limit.times, limit.kind) }}
              {{ inSpan(look.ceiling.perSeconds) }}; the ceiling is {{ limit.most
              }}<span v-if="limit.times > limit.most" class="bad"> and would have been passed</span
              ><template v-if="limit.busiest !== null"
                >, {{ origin(limit, look.ceiling.perSeconds, now, zone) }}</template
              >.
            </li>
          </ul>
        </template>
        <p class="mid">
          <template v-if="look.asked">
            {{ look.asked.system }} is asked every {{ everyText(look.asked.everySeconds) }}, which
            is {{ counted(look.asked.callsPerDay, 'call') }} a day of its own; a change waits that
            long at the most<template v-if="look.asked.pushes"
              >, and mostly not at all, since it tells of changes too</template
            >.
          </template>
          <template v-else>Events are pushed, so nothing waits to be asked for.</template>
          While a system does not answer, it is tried again for
          {{ spanText(look.givenUpAfterSeconds * 1000) }}; after that it waits for a person.
        </p>
      </template>
    </template>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not yet</button>
      <button class="btn main" :disabled="waits" @click="emit('go', accept, sure)">Go live</button>
    </template>
  </OverDialog>
</template>

<style scoped>
ul {
  margin: 4px 0;
  padding-left: 18px;
}
.examples {
  list-style: none;
  padding: 0;
}
.examples li {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  align-items: baseline;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
.difference {
  display: block;
  padding-left: 14px;
}
</style>
