<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { onArrival } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { HoldControl, readHeld } from '@/features/hold'
import AddSamples from './AddSamples.vue'
import ArrivingShore from './ArrivingShore.vue'
import BothWaysBank from './BothWaysBank.vue'
import DeskBar from './DeskBar.vue'
import GoLive from './GoLive.vue'
import LeavingShore from './LeavingShore.vue'
import ProofSheet from './ProofSheet.vue'
import RulesBank from './RulesBank.vue'
import SampleStrip from './SampleStrip.vue'
import TryDialog from './TryDialog.vue'
import { pinSample, readLanguage, readLiveBridges, readPlaces, removeSample } from './api'
import { isGroup, usedIn } from './tree'
import { useDraft } from './useDraft'
import { useTrial } from './useTrial'

/** The desk: what arrives, the rules, and what leaves, computed for real events while they are edited. */
const props = defineProps<{ id: string }>()
const router = useRouter()
const draft = useDraft(props.id)
const sample = ref('')
const { trial, error: trialError, run } = useTrial(props.id, draft.text, sample)
const { data: language, load: loadLanguage } = useResource(readLanguage)
const { data: places, load: loadPlaces } = useResource(readPlaces)
const { data: bridges, load: loadBridges } = useResource(readLiveBridges)
const { data: live, load: loadLive } = useResource(() => readHeld(props.id))
const open = ref('')
const dialog = ref<'' | 'live' | 'add' | 'try'>('')
const proof = ref(false)
const waiting = ref(false)
const pinned = ref('')
const refused = ref('')
const taking = ref<((address: string) => void) | null>(null)

onMounted(() => {
  void draft.load()
  void loadLanguage()
  void loadPlaces()
  void loadBridges()
  window.addEventListener('keydown', keys)
})
onUnmounted(() => window.removeEventListener('keydown', keys))

watch(draft.liveVersion, (version) => version !== null && void loadLive())

function keys(event: KeyboardEvent) {
  if (event.key === 'Escape') taking.value = null
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  const at = event.target as HTMLElement
  // In a text field the browser's own undo comes first.
  if (['INPUT', 'TEXTAREA'].includes(at.tagName)) return
  event.preventDefault()
  if (event.shiftKey) draft.redo()
  else draft.undo()
}

const doc = draft.doc
const start = computed(() => (isGroup(doc.value?.from) ? doc.value.from : {}))
/** Whether two places are kept alike, so that neither is where it starts or leads. */
const bothWays = computed(() => isGroup(doc.value?.between))
const name = computed(() => (typeof doc.value?.name === 'string' ? doc.value.name : props.id))
const current = computed(() => trial.value?.samples[trial.value.inView])
/** Where it leads; the place it starts at, where it changes the very record. */
const end = computed(() => (isGroup(doc.value?.to) ? doc.value.to : start.value))
/** Of several places the first, as the server finds them. */
const startCollection = computed(() =>
  'places' in start.value ? trial.value?.start.collection : start.value.collection,
)
const endCollection = computed(() =>
  isGroup(end.value.collection) || 'places' in end.value
    ? trial.value?.start.targetCollection
    : end.value.collection,
)
const targetPlace = computed(() =>
  places.value?.targets.find(
    (place) => place.system === end.value.system && place.collection === endCollection.value,
  ),
)
const targetName = computed(
  () =>
    places.value?.targets.find((place) => place.system === end.value.system)?.systemName ??
    String(end.value.system ?? 'the target'),
)
const sourcePlace = computed(() =>
  places.value?.sources.find(
    (place) => place.system === start.value.system && place.collection === startCollection.value,
  ),
)
const goesTo = computed(() =>
  usedIn(
    doc.value?.fields,
    (trial.value?.arriving ?? []).flatMap((group) => group.fields.map((field) => field.address)),
    (key) => trial.value?.leaving.find((field) => field.key === key)?.name ?? key,
  ),
)

// The event that was waited for comes into view; nothing that is typed is touched.
onArrival(async (arrival) => {
  if (!waiting.value || arrival.system !== start.value.system) return
  if (arrival.collection !== startCollection.value && !trial.value?.start.places) return
  const known = new Set(trial.value?.samples.map((one) => one.id))
  await run(true)
  const fresh = trial.value?.samples.find((one) => !known.has(one.id) && one.origin === 'RECEIVED')
  if (fresh) {
    sample.value = fresh.id
    waiting.value = false
  }
})

function show(field: string) {
  open.value = field
  document.getElementById(`rule-${field}`)?.scrollIntoView({ block: 'nearest' })
}

function picked(address: string) {
  taking.value?.(address)
  taking.value = null
}

async function tried(act: () => Promise<unknown>) {
  try {
    await act()
    refused.value = ''
  } catch (e) {
    refused.value = (e as Error).message
  }
}

async function added(ids: string[]) {
  dialog.value = ''
  sample.value = ids[0] ?? ''
  await run()
}

const remove = (id: string) =>
  tried(async () => {
    await removeSample(props.id, id)
    sample.value = ''
    await run()
  })

const pin = (as: string) =>
  tried(async () => {
    if (!current.value) return
    await pinSample(props.id, draft.text.value, current.value.id, as || current.value.title)
    pinned.value = 'Pinned. It is checked each time the bridge goes live.'
  })

const pinPair = (row: string, name: string) =>
  tried(async () => {
    await pinSample(props.id, draft.text.value, row, name)
    pinned.value = `“${name}” is pinned, and checked each time the bridge goes live.`
  })

async function go(acceptExamples: boolean, acceptLoops: boolean) {
  if (await draft.putToWork(acceptExamples, acceptLoops)) {
    dialog.value = ''
    await router.push({ name: 'bridge', params: { id: props.id } })
  }
}

async function giveUp() {
  await draft.drop()
  if (draft.liveVersion.value === null) await router.push({ name: 'bridges' })
}

const copyAsDocument = () => navigator.clipboard.writeText(JSON.stringify(doc.value, null, 2))
</script>

<template>
  <div class="desk">
    <DeskBar
      :name="name"
      :live-version="draft.liveVersion.value"
      :state="draft.state.value"
      :changed="draft.revision.value > 0"
      :can-undo="draft.canUndo.value"
      :can-redo="draft.canRedo.value"
      :proof="proof"
      :ready="trial !== null"
      @theirs="draft.load"
      @copy="copyAsDocument"
      @undo="draft.undo"
      @redo="draft.redo"
      @proof="proof = !proof"
      @give-up="giveUp"
      @live="dialog = 'live'"
    >
      <span v-if="live?.heldSince" class="held" :title="live.heldBecause">held</span>
      <HoldControl v-if="live" :bridge="live" @changed="loadLive" />
      <RouterLink v-if="!bothWays" class="btn" :to="{ name: 'rehearsal', params: { id } }"
        >Rehearse…</RouterLink
      >
    </DeskBar>
    <p v-if="draft.error.value && draft.state.value !== 'kept'" class="note bad" role="alert">
      {{ draft.error.value }}
    </p>
    <p v-if="trialError || refused" class="note bad" role="alert">{{ trialError || refused }}</p>
    <SampleStrip
      v-if="trial && !bothWays"
      :samples="trial.samples"
      :in-view="trial.inView"
      :waiting="waiting"
      :source-problem="trial.sourceProblem"
      @show="sample = $event"
      @again="run(true)"
      @add="dialog = 'add'"
      @wait="waiting = !waiting"
      @remove="remove"
    />
    <p v-if="trial && !bothWays && !trial.samples.length" class="note">
      No event of this kind was received yet, and none could be read. The rules can be written all
      the same; add an event, or wait for the next one.
    </p>
    <BothWaysBank
      v-if="trial && doc && bothWays"
      :id="id"
      :doc="doc"
      :text="draft.text.value"
      :trial="trial"
      @change="draft.change"
    />
    <div v-else-if="trial && language && doc" class="shores">
      <ArrivingShore
        :groups="trial.arriving"
        :goes-to="goesTo"
        :samples="trial.samples.length"
        :picking="taking !== null"
        @pick="picked"
        @show="show"
      />
      <RulesBank
        :id="id"
        v-model:open="open"
        :doc="doc"
        :text="draft.text.value"
        :trial="trial"
        :language="language"
        :places="places?.lookups ?? []"
        :source="sourcePlace"
        :target="targetPlace"
        :targets="places?.targets ?? []"
        :bridges="bridges ?? []"
        @change="draft.change"
        @pick="taking = $event"
        @reread="run()"
      />
      <LeavingShore
        :trial="trial"
        :open="open"
        :pinned="pinned"
        @show="show"
        @pin="pin"
        @send="dialog = 'try'"
      />
    </div>
    <ProofSheet
      v-if="proof"
      :id="id"
      :text="draft.text.value"
      :pinned="pinned"
      @show="show"
      @pin="pinPair"
      @close="proof = false"
    />
    <GoLive
      v-if="dialog === 'live' && trial"
      :id="id"
      :text="draft.text.value"
      :trial="trial"
      :live-version="draft.liveVersion.value"
      :error="draft.error.value"
      @go="go"
      @close="dialog = ''"
    />
    <AddSamples
      v-if="dialog === 'add' && trial"
      :id="id"
      :text="draft.text.value"
      :arriving="trial.arriving"
      @added="added"
      @close="dialog = ''"
    />
    <TryDialog
      v-if="dialog === 'try' && trial && current"
      :id="id"
      :text="draft.text.value"
      :trial="trial"
      :sample="current"
      :target="targetName"
      @close="dialog = ''"
    />
  </div>
</template>

<style scoped>
.desk {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.shores {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 256px minmax(0, 1fr) 280px;
}
</style>
