<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { onChange } from '@/shared/composables/live'
import { useActing } from '@/shared/composables/acting'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, timeOfDay } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import { KnownTroubles } from '@/features/notes'
import { RecallsOf, TakeBackButton } from '@/features/recall'
import { SendAgain } from '@/features/resend'
import FindingText from './FindingText.vue'
import MendingPart from './MendingPart.vue'
import { lookAgain, readIncident } from './api'
import { doing, waitsWords } from './words'

const props = defineProps<{ id: string }>()
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(() => readIncident(props.id))
const { busy, error: refused, during } = useActing()
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)
onChange(
  () => true,
  () => void load(),
)
const notListed = ref('')
const STATES = { OPEN: 'open', MENDING: 'being mended', CLOSED: 'closed' }
const incident = computed(() => data.value?.incident)
const first = computed(() => data.value?.findings[0])
const others = computed(() => data.value?.findings.slice(1) ?? [])

async function look() {
  if (incident.value && (await during(() => lookAgain(incident.value!.id)))) void load()
}
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <template v-if="data && incident && first">
    <div class="heading">
      <h1>{{ incident.headline }}</h1>
      <span class="pill" :class="{ bad: incident.state !== 'CLOSED' }">{{
        STATES[incident.state]
      }}</span>
      <span class="gap"></span>
      <button
        v-if="incident.state !== 'CLOSED'"
        class="btn"
        :disabled="busy"
        title="Ask its system now, and conclude anew"
        @click="look"
      >
        Look again
      </button>
      <RouterLink
        v-if="incident.heldBridge"
        class="btn"
        :to="{ name: 'bridge', params: { id: incident.heldBridge } }"
        >See the held bridge</RouterLink
      >
      <TakeBackButton
        v-if="incident.heldBridge"
        :wish="{ incident: incident.id }"
        label="Take back what it made…"
        @refused="notListed = $event"
      />
      <SendAgain v-if="incident.sendable" :incident="incident" @begun="load" />
    </div>
    <p class="note" :class="{ bad: incident.state !== 'CLOSED' }" role="status">
      <template v-if="incident.closedAt">
        Open from {{ dayAndTime(incident.openedAt, now, zone) }} to
        {{ dayAndTime(incident.closedAt, now, zone) }}.
      </template>
      <template v-else>
        Since {{ dayAndTime(incident.openedAt, now, zone) }}: {{ waitsWords(incident) }}.
        <template v-if="incident.nextProbe"
          >It is called again at {{ timeOfDay(incident.nextProbe, zone) }}, and what waits goes on
          by itself once it answers.</template
        >
        <template v-if="data.oneByOne">
          {{ counted(data.oneByOne, 'event') }} of them must be looked for one by one: nobody knows
          whether they were carried out.
        </template>
      </template>
      <template v-if="incident.cameBack">
        It came back {{ incident.cameBack === 1 ? 'once' : `${incident.cameBack} times` }}.
      </template>
      <span v-if="refused || notListed" class="bad" role="alert">{{ refused || notListed }}</span>
    </p>
    <KnownTroubles
      v-for="bridge in incident.bridges"
      :key="bridge.id"
      :bridge="bridge.id"
      :name="bridge.name"
    />
    <div class="sides">
      <div class="story">
        <section aria-labelledby="why">
          <h2 id="why">
            Why <small>{{ first.sure }}</small>
          </h2>
          <FindingText :finding="first" />
          <p v-if="data.look" class="undecided">
            What is known does not tell this from “{{ others[0]?.headline }}”. One look would:
            {{ data.look }}
          </p>
        </section>
        <section aria-labelledby="todo">
          <h2 id="todo">What to do</h2>
          <p>{{ first.todo }}</p>
        </section>
        <section v-if="others.length" aria-labelledby="weighed">
          <h2 id="weighed">Also weighed</h2>
          <details v-for="one in others" :key="one.headline">
            <summary>
              {{ one.headline }} <small class="mid">{{ one.sure }}</small>
            </summary>
            <FindingText :finding="one" />
            <p class="mid">To know: {{ one.proof }}</p>
          </details>
        </section>
        <section v-if="data.groups.length" aria-labelledby="failed">
          <h2 id="failed">What failed</h2>
          <table class="rows">
            <thead>
              <tr>
                <th scope="col">It said</th>
                <th scope="col">While</th>
                <th scope="col" class="n">Events</th>
                <th scope="col" class="n">Records</th>
                <th scope="col">First and last</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(group, place) in data.groups" :key="place">
                <td class="said">
                  <b>{{ group.kind }}</b><template v-if="group.code">, {{ group.code }}</template>
                  <small class="mid">{{ group.message }}</small>
                </td>
                <td>
                  {{ doing(group) }}
                  <small v-if="group.where" class="mid">in {{ group.where }}</small>
                  <small v-if="group.field" class="mid">about {{ group.field }}</small>
                </td>
                <td class="n">{{ group.failures.toLocaleString('en') }}</td>
                <td class="n">{{ group.records.toLocaleString('en') }}</td>
                <td class="mono">
                  {{ dayAndTime(group.first, now, zone) }}
                  <template v-if="group.failures > 1"
                    ><br />{{ dayAndTime(group.last, now, zone) }}</template
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </section>
      </div>
      <aside>
        <section aria-labelledby="concerned">
          <h2 id="concerned">Bridges</h2>
          <table class="rows">
            <thead>
              <tr>
                <th scope="col">Bridge</th>
                <th scope="col" class="n">Failed</th>
                <th scope="col" class="n">Waiting</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="share in data.shares" :key="share.id">
                <th scope="row">
                  <RouterLink :to="{ name: 'bridge', params: { id: share.id } }">{{
                    share.name
                  }}</RouterLink>
                </th>
                <td class="n">{{ share.failed.toLocaleString('en') }}</td>
                <td class="n">
                  <RouterLink
                    v-if="share.waiting"
                    :to="{
                      name: 'traces',
                      query: {
                        bridge: share.id,
                        verdict: incident.heldBridge ? 'waiting' : 'needs-you',
                        span: '30d',
                      },
                    }"
                    :aria-label="`See the ${share.waiting} that wait at ${share.name}`"
                    >{{ share.waiting.toLocaleString('en') }}</RouterLink
                  >
                  <template v-else>0</template>
                </td>
              </tr>
            </tbody>
          </table>
        </section>
        <RecallsOf :incident="incident.id" />
        <section>
          <MendingPart :story="data" @changed="load" />
        </section>
      </aside>
    </div>
  </template>
</template>

<style scoped>
.sides {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  min-height: 0;
}
.story {
  padding: 14px 20px;
}
aside {
  padding: 14px 18px;
  background: var(--sand);
  border-left: 1px solid var(--line);
}
section {
  margin-bottom: 20px;
}
small {
  font-size: 13px;
}
td small {
  display: block;
  line-height: 18px;
  overflow-wrap: anywhere;
}
td {
  vertical-align: top;
}
.undecided {
  margin-top: 8px;
  padding-left: 20px;
  font-weight: 650;
}
details {
  border-top: 1px solid var(--line);
  padding: 6px 0;
}
summary {
  cursor: pointer;
}
details p {
  padding-left: 20px;
}
tbody th {
  font-weight: 400 !important;
  font-size: 14px !important;
  vertical-align: top;
}
</style>
