<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { about, dayAndTime } from '@/shared/format/time'
import ResourceState from '@/shared/ui/ResourceState.vue'
import BeginDialog from './BeginDialog.vue'
import RecordRows from './RecordRows.vue'
import { choose, forget, goOn, makeAgain, readRecall, readRecords, stop } from './api'
import type { RecallRecord } from './api'
import { came, far, ofWhom, records, STATES } from './words'

/** One recall: what was made, what goes, how far it is, and what came of it. */
const props = defineProps<{ id: string }>()
const router = useRouter()
const { now, zone } = useSession()
const pages = ref(1)
const { data, error, loading, load } = useResource(async () => {
  const recall = await readRecall(props.id)
  const items: RecallRecord[] = []
  let next: number | null | undefined
  for (let page = 0; page < pages.value && next !== null; page++) {
    const more = await readRecords(props.id, next)
    items.push(...more.items)
    next = more.next
  }
  return { recall, items, next: next ?? null }
})
const { busy, error: refused, during } = useActing()
const asking = ref(false)
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)
onChange(
  () => true,
  () => void load(),
)

const recall = computed(() => data.value?.recall)
const counts = computed(() => recall.value!.counts)
const progress = computed(() => far(counts.value))
const title = computed(() => {
  const of = recall.value!
  const what = of.trace ? 'What one event made at' : 'What was made by'
  return `${what} ${ofWhom(of)}`
})
const span = computed(() => {
  const of = recall.value!
  const version = of.version === null ? '' : `, with version ${of.version}`
  const from = dayAndTime(of.from, now.value, zone.value)
  return `Made from ${from} to ${dayAndTime(of.until, now.value, zone.value)}${version}`
})

async function act(doing: () => Promise<unknown>) {
  await during(doing)
  await load()
}
const number = () => recall.value!.id
const tick = (one: RecallRecord, chosen: boolean) =>
  act(() => choose(number(), one.delivery, chosen))
async function drop() {
  if (await during(() => forget(number()))) router.back()
}
function more() {
  pages.value++
  void load()
}
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <template v-if="data && recall">
    <div class="heading">
      <h1>{{ title }}</h1>
      <span class="pill">{{ STATES[recall.state] }}</span>
      <span class="gap"></span>
      <template v-if="recall.state === 'LISTED'">
        <button class="btn" :disabled="busy" @click="drop">Leave it all</button>
        <button class="btn main" :disabled="busy || !counts.chosen" @click="asking = true">
          Take back {{ records(counts.chosen) }}…
        </button>
      </template>
      <button
        v-if="recall.state === 'RUNNING'"
        class="btn"
        :disabled="busy"
        @click="act(() => stop(number()))"
      >
        Stop
      </button>
      <template v-if="recall.state === 'STOPPED' || recall.state === 'ENDED'">
        <button
          v-if="counts.takenBack"
          class="btn"
          :disabled="busy"
          title="Send the newest event of each once more, with the rules that are live now"
          @click="act(() => makeAgain(number()))"
        >
          Make them again
        </button>
        <button
          v-if="counts.chosen || counts.failed"
          class="btn main"
          :disabled="busy"
          @click="act(() => goOn(number()))"
        >
          {{ recall.state === 'STOPPED' ? 'Go on' : `Try the ${counts.failed} once more` }}
        </button>
      </template>
    </div>
    <p class="note" role="status">
      {{ span }}:
      <template v-if="recall.state === 'LISTED'">
        <template v-if="counts.chosen > counts.puts || !counts.puts"
          >{{ records(counts.chosen - counts.puts) }} would go.
        </template>
        <template v-if="counts.puts"
          >{{ records(counts.puts) }} that {{ counts.puts === 1 ? 'was' : 'were' }} there before
          would hold again what {{ counts.puts === 1 ? 'it' : 'they' }} held, until the next event
          of {{ counts.puts === 1 ? 'it' : 'them' }}.
        </template>
        <template v-if="counts.changed"
          >{{ records(counts.changed) }} that somebody changed since
          {{ counts.changed === 1 ? 'stays' : 'stay' }} unless you tick
          {{ counts.changed === 1 ? 'it' : 'them' }}.
        </template>
        <template v-if="counts.named"
          >{{ records(counts.named) }} can only be named, with the reason.
        </template>
        <template v-if="counts.goneBefore"
          >{{ records(counts.goneBefore) }} {{ counts.goneBefore === 1 ? 'is' : 'are' }} gone
          already.
        </template>
        <template v-if="counts.unseen && recall.looksAhead"
          >{{ records(counts.unseen) }} still to be looked at.
        </template>
        <template v-else-if="counts.unseen"
          >Each is looked at just before it goes, and stays if somebody changed it since.
        </template>
        <template v-if="recall.slowest"
          >At what {{ recall.slowest }} allows it takes {{ about(recall.seconds) }}.
        </template>
      </template>
      <template v-else>
        {{ came(counts) }}.
        <template v-if="recall.state === 'RUNNING'">
          {{ (progress.all - progress.done).toLocaleString('en') }} left<template
            v-if="recall.slowest"
            >, {{ about(recall.seconds) }} at what {{ recall.slowest }} allows</template
          >.
        </template>
        <template v-if="recall.state === 'ENDED' && counts.takenBack"
          >Nothing that comes later makes them again, unless a person says so.
        </template>
        <template v-if="counts.madeAgain">{{ records(counts.madeAgain) }} sent again. </template>
        <template v-if="recall.begunAt">
          Begun {{ dayAndTime(recall.begunAt, now, zone) }} by a {{ recall.askedBy
          }}<template v-if="recall.endedAt"
            >, ended {{ dayAndTime(recall.endedAt, now, zone) }}</template
          >.
        </template>
      </template>
      <RouterLink v-if="recall.incident" :to="{ name: 'incident', params: { id: recall.incident } }"
        >Its incident</RouterLink
      >
      <span v-if="recall.problem" class="bad">It broke off: {{ recall.problem }}</span>
      <span v-if="refused" class="bad" role="alert">{{ refused }}</span>
      <progress
        v-if="recall.state === 'RUNNING'"
        :value="progress.done"
        :max="progress.all"
        :aria-label="`How far it is: ${progress.done} of ${progress.all}`"
      ></progress>
    </p>
    <div class="list">
      <RecordRows
        :items="data.items"
        :choosing="recall.state === 'LISTED'"
        :busy="busy"
        @choose="tick"
      />
      <button v-if="data.next" class="btn" @click="more">More of them</button>
    </div>
    <BeginDialog v-if="asking" :recall="recall" @close="asking = false" @begun="load" />
  </template>
</template>

<style scoped>
.list {
  padding: 0 20px 16px;
}
.list .btn {
  margin-top: 10px;
}
.note a {
  text-decoration: underline;
}
progress {
  display: block;
  width: 100%;
  margin-top: 6px;
}
</style>
