<script setup lang="ts">
import { onMounted, onUnmounted, ref } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { age, dayAndTime, everyText, spanText } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import FaultSwitches from './FaultSwitches.vue'
import PractiseRunaway from './PractiseRunaway.vue'
import QuotaPart from './QuotaPart.vue'
import ResourceState from '@/shared/ui/ResourceState.vue'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { pollOf } from './pollOf'
import { fullness } from './troubles'
import {
  askNow,
  dropFile,
  lookNow,
  readPolls,
  readSystems,
  type PollView,
  type SystemView,
} from './api'

/** The connected systems: what can be done there, who uses it, and whether it answers. */
const REST = 15_000
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(async () => {
  const [systems, polls] = await Promise.all([readSystems(), readPolls()])
  return { systems, polls }
})
const busy = ref('')
const refused = ref('')
const timer = setInterval(() => void load(), REST)
onMounted(() => void load())
onUnmounted(() => clearInterval(timer))

async function during(what: string, act: () => Promise<unknown>) {
  busy.value = what
  try {
    await act()
    refused.value = ''
  } catch (e) {
    refused.value = (e as Error).message
  } finally {
    busy.value = ''
    await load()
  }
}

function asked(poll: PollView): string {
  if (!poll.everySeconds) return 'no live bridge asks it'
  const last = poll.askedAt ? `, answered ${age(poll.askedAt, now.value)} ago` : ', not asked yet'
  return `asked every ${everyText(poll.everySeconds)}${last}`
}

function drop(id: string, event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) void during(id, () => dropFile(id, file))
}

/** What the system allows, and how much of it is used. */
function rate(system: SystemView): string {
  if (system.closedSeconds) {
    return `asked for no call, ${spanText(system.closedSeconds * 1000)} more`
  }
  if (system.limitCalls === null) return 'names no limit'
  const span = spanText(system.limitSeconds! * 1000)
  return `${system.usedCalls} of ${counted(system.limitCalls, 'call')} used in the last ${span.replace(/^an? /, '')}`
}
</script>

<template>
  <div class="systems">
    <div class="top">
      <h1>Systems</h1>
      <span class="gap"></span>
      <PractiseRunaway />
      <RouterLink class="btn main" :to="{ name: 'connect' }">Connect a system</RouterLink>
    </div>
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <p v-if="refused" class="note bad" role="alert">{{ refused }}</p>
    <p v-if="data && data.systems.length === 0" class="mid">
      No system is connected. Connect the first: a form, a chat, a mailbox, a task list.
    </p>
    <section v-for="system in data?.systems" :key="system.id" :aria-labelledby="system.id">
      <div class="top">
        <h2 :id="system.id">{{ system.name }}</h2>
        <span class="mono dim">{{ system.address }}</span>
        <span :class="system.closedSeconds ? 'bad' : 'mid'">{{ rate(system) }}</span>
        <span v-if="system.quota" :class="system.quota.nearlyFull ? 'bad' : 'mid'">{{
          system.quota.problem || fullness(system.quota)
        }}</span>
        <span class="gap"></span>
        <label v-if="system.address.startsWith('drop:')" class="btn file"
          >Drop a file<input
            type="file"
            :aria-label="`Drop a file for ${system.name}`"
            @change="drop(system.id, $event)"
        /></label>
        <RouterLink
          class="btn bare"
          :to="{ name: 'system-document', params: { id: system.id } }"
          :aria-label="`The document of ${system.name}`"
          >Its document</RouterLink
        >
        <RouterLink
          class="btn bare"
          :to="{ name: 'uses', query: { kind: 'system', system: system.id } }"
          :aria-label="`What hangs on ${system.name}`"
          >What hangs on it</RouterLink
        >
        <button
          class="btn"
          :disabled="busy !== ''"
          :aria-label="`Look at ${system.name} now`"
          @click="during(system.id, () => lookNow(system.id))"
        >
          {{ busy === system.id ? 'Looking…' : 'Look now' }}
        </button>
      </div>
      <QuotaPart
        v-if="system.quota && !system.quota.problem"
        :system="system.id"
        :of="system.quota.of"
      />
      <p v-for="(problem, directory) in system.unreadNames" :key="directory" class="bad">
        The names of {{ String(directory).replaceAll('-', ' ') }} could not be read: {{ problem }}
      </p>
      <p v-for="one in system.names" :key="`${one.directory} ${one.key}`" class="name">
        <template v-if="one.was"
          ><b>{{ one.was }}</b> is called <b>{{ one.name }}</b> now</template
        >
        <template v-else
          ><b class="bad">{{ one.name }}</b> is not there any more</template
        >
        <span class="mid">
          ({{ one.directory.replaceAll('-', ' ') }}, {{ dayAndTime(one.since, now, zone) }}); named
          by
        </span>
        <template v-for="(use, i) in one.uses" :key="`${use.bridge} ${use.what}`"
          >{{ i ? ', ' : '' }}{{ use.what }} of
          <RouterLink :to="{ name: 'desk', params: { id: use.bridge } }">{{
            use.name
          }}</RouterLink></template
        >
      </p>
      <table class="rows">
        <thead>
          <tr>
            <th scope="col">Collection</th>
            <th scope="col">What we can do there</th>
            <th scope="col">Used by</th>
            <th scope="col">Answers</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="collection in system.collections" :key="collection.id">
            <th scope="row">
              {{ collection.name }}
              <small v-if="collection.places" class="dim">{{
                counted(collection.places, 'place')
              }}</small>
            </th>
            <td class="can">
              {{ collection.can.join(', ') }}
              <small v-if="collection.cannot.length" class="dim">
                cannot {{ collection.cannot.join(', ') }}
              </small>
              <small v-if="collection.promise" class="dim">{{ collection.promise }}</small>
              <small v-if="pollOf(data!.polls, system.id, collection)" class="mid">
                {{ asked(pollOf(data!.polls, system.id, collection)!) }}
                <button
                  v-if="!collection.places"
                  class="btn bare"
                  :disabled="busy !== ''"
                  :aria-label="`Ask ${collection.name} now`"
                  @click="during('', () => askNow(system.id, collection.id))"
                >
                  Ask now
                </button>
              </small>
            </td>
            <td>
              <template v-for="(bridge, i) in collection.bridges" :key="bridge.id"
                ><template v-if="i">, </template
                ><RouterLink :to="{ name: 'bridge', params: { id: bridge.id } }">{{
                  bridge.name
                }}</RouterLink></template
              >
              <span v-if="!collection.bridges.length" class="dim">no live bridge</span>
            </td>
            <td class="state">
              <template
                v-if="collection.problem || pollOf(data!.polls, system.id, collection)?.problem"
              >
                <VerdictMark kind="FAILED" />
                <span class="bad">{{
                  collection.problem || pollOf(data!.polls, system.id, collection)?.problem
                }}</span>
              </template>
              <template v-else-if="collection.changes.length">
                <VerdictMark kind="FAILED" />
                <span v-for="change in collection.changes" :key="change.field" class="bad change">
                  {{ change.text }}.
                  {{
                    change.bridges.length
                      ? `Read by ${change.bridges.map((one) => one.name).join(', ')}: change the document, then the bridge.`
                      : 'No live bridge reads it.'
                  }}
                </span>
              </template>
              <template v-else-if="collection.lookedAt">
                <VerdictMark kind="DONE" /> as described
              </template>
              <span v-else class="dim">not looked at yet</span>
              <small v-if="collection.lookedAt" class="dim">
                looked at {{ dayAndTime(collection.lookedAt, now, zone) }}
              </small>
            </td>
          </tr>
        </tbody>
      </table>
      <FaultSwitches v-if="system.practice" :id="system.id" :name="system.name" @switched="load" />
    </section>
  </div>
</template>

<style scoped>
.systems {
  padding: 14px 20px;
  overflow: auto;
}
section {
  margin-top: 18px;
}
.top {
  display: flex;
  gap: 14px;
  align-items: baseline;
}
.change {
  display: block;
}
.gap {
  flex: 1;
}
table {
  table-layout: fixed;
}
th:nth-child(1) {
  width: 16%;
}
th:nth-child(2) {
  width: 34%;
}
th:nth-child(3) {
  width: 18%;
}
.rows td,
.rows tbody th {
  white-space: normal;
  padding-top: 7px;
  padding-bottom: 7px;
  vertical-align: top;
}
.rows tbody th {
  font-size: 14px;
  font-weight: 650;
  color: var(--ink);
}
small {
  display: block;
  font-size: 13px;
}
small .btn {
  padding-block: 0;
  margin-left: 8px;
}
.name {
  padding: 2px 0;
}
</style>
