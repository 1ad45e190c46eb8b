<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import { capital, counted } from '@/shared/format/words'
import EarlierRuns from '@/shared/ui/EarlierRuns.vue'
import ResourceState from '@/shared/ui/ResourceState.vue'
import DifferenceRows from './DifferenceRows.vue'
import RehearsalForm from './RehearsalForm.vue'
import RehearsalTally from './RehearsalTally.vue'
import {
  begin,
  readDifferences,
  readRehearsals,
  stop,
  type Difference,
  type Filter,
  type Rehearsal,
  type Wish,
} from './api'
import { STATES, what } from './words'

/** A draft or a version over what came before, against what became of it. */
const props = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const { now, zone } = useSession()
const filter = ref<Filter>({})
const pages = ref(1)

const { data, error, loading, load } = useResource(async () => {
  const of = await readRehearsals(props.id)
  const wanted = Number(route.query.rehearsal ?? 0)
  const shown = of.rehearsals.find((one) => one.id === wanted) ?? of.rehearsals[0] ?? null
  const items: Difference[] = []
  let next: number | null = shown ? 0 : null
  for (let page = 0; page < pages.value && next !== null; page++) {
    const more: Awaited<ReturnType<typeof readDifferences>> = await readDifferences(
      shown!.id,
      filter.value,
      next,
    )
    items.push(...more.items)
    next = more.next
  }
  return { of, shown, items, more: next !== null }
})
const { busy, error: refused, during } = useActing()
watch(
  () => [props.id, route.query.rehearsal],
  () => {
    filter.value = {}
    pages.value = 1
    void load()
  },
  { immediate: true },
)
watch(filter, () => {
  pages.value = 1
  void load()
})
onChange(
  (change) => change.bridge === props.id || change.bridge === '',
  () => void load(),
)

const shown = computed(() => data.value?.shown ?? null)
const runs = computed(
  () => data.value?.of.rehearsals.find((one) => one.state === 'RUNNING') ?? null,
)
const share = (one: Rehearsal) => (one.total ? Math.round((100 * one.done) / one.total) : 0)
async function act(does: () => Promise<unknown>) {
  await during(does)
  await load()
}
async function start(wish: Wish) {
  await during(async () => {
    const begun = await begin(wish)
    await router.replace({ query: { rehearsal: begun.id } })
  })
  await load()
}
function more() {
  pages.value++
  void load()
}
const at = (one: Rehearsal) =>
  one.state === 'RUNNING' && one.total !== null ? `${share(one)} % through` : STATES[one.state]
const earlier = computed(() =>
  data.value!.of.rehearsals.map((one) => ({
    id: one.id,
    begunAt: one.begunAt,
    to: { name: 'rehearsal', params: { id: props.id }, query: { rehearsal: one.id } },
    words: `${what(one)}, ${counted(one.done, 'event')}, ${one.differing.toLocaleString('en')} otherwise, ${at(one)}`,
  })),
)
const came = (one: Rehearsal) =>
  one.firstAt && one.lastAt
    ? ` received from ${dayAndTime(one.firstAt, now.value, zone.value)} to ${dayAndTime(one.lastAt, now.value, zone.value)}`
    : ''
const answers = (one: Rehearsal) =>
  one.answers === 'OF_THEN'
    ? 'Lookups found what they found then; what was not asked then was asked now.'
    : 'Lookups were asked now.'
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <template v-if="data">
    <div class="heading">
      <h1>Rehearsal</h1>
      <RouterLink
        class="mid of"
        :to="{ name: data.of.liveVersion === null ? 'desk' : 'bridge', params: { id } }"
        >of {{ data.of.bridgeName }}</RouterLink
      >
      <span v-if="shown" class="pill" role="status">{{ at(shown) }}</span>
      <span class="gap"></span>
      <button v-if="runs" class="btn" :disabled="busy" @click="act(() => stop(runs!.id))">
        Stop
      </button>
      <RouterLink class="btn" :to="{ name: 'desk', params: { id } }">Open the desk</RouterLink>
    </div>
    <p v-if="data.of.bothWays" class="note">
      A bridge that goes both ways is not rehearsed: what both sides held then is not kept. Its
      proof sheet, on the desk, shows what it makes of its pairs as they are.
    </p>
    <RehearsalForm v-else :id="id" :of="data.of" :busy="busy || runs !== null" @begin="start" />
    <p v-if="refused" class="note bad" role="alert">{{ refused }}</p>
    <p v-if="!shown && !data.of.bothWays" class="note">
      Nothing was rehearsed yet. A rehearsal decides events that came before by the rules you choose
      and holds that against what became of them. Nothing is made, changed or told over there.
    </p>
    <template v-if="shown">
      <p v-if="shown.problem" class="note bad">{{ shown.problem }}</p>
      <progress
        v-if="shown.state === 'RUNNING'"
        :value="shown.done"
        :max="shown.total ?? 1"
        aria-label="How far it is"
      ></progress>
      <p class="note">
        {{ capital(what(shown)) }}, over
        {{
          shown.state === 'ENDED' || shown.total === null
            ? counted(shown.done, 'event')
            : `${shown.done.toLocaleString('en')} of ${counted(shown.total, 'event')}`
        }}{{ came(shown) }}:
        <b>{{
          shown.differing
            ? `${shown.differing.toLocaleString('en')} ${shown.differing === 1 ? 'comes' : 'come'} to something else`
            : 'each comes to what it came to'
        }}</b>. {{ answers(shown) }}
      </p>
      <RehearsalTally
        v-if="shown.done"
        v-model:filter="filter"
        :rehearsal="shown"
        :names="data.of.fieldNames"
      />
      <section v-if="shown.differing" aria-labelledby="differences">
        <h2 id="differences">What differs</h2>
        <DifferenceRows :items="data.items" :names="data.of.fieldNames" />
        <button v-if="data.more" class="btn" @click="more">More of them</button>
        <p
          v-else-if="shown.differing > data.items.length && !Object.keys(filter).length"
          class="mid"
        >
          Of each sort of difference the first 500 are kept.
        </p>
      </section>
      <EarlierRuns
        v-if="data.of.rehearsals.length > 1"
        title="All rehearsals"
        :runs="earlier"
        :current="shown.id"
      />
    </template>
  </template>
</template>

<style scoped>
.of {
  text-decoration: underline;
}
section {
  padding: 0 20px 16px;
}
section > .btn {
  margin-top: 10px;
}
progress {
  display: block;
  width: calc(100% - 40px);
  height: 6px;
  margin: 0 20px 8px;
  appearance: none;
  border: 0;
}
progress::-webkit-progress-bar {
  background: var(--panel);
  border-radius: 3px;
}
progress::-webkit-progress-value {
  background: var(--kelp);
  border-radius: 3px;
}
</style>
