<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useResource } from '@/shared/composables/resource'
import AddBy from './AddBy.vue'
import ArrivingShore from './ArrivingShore.vue'
import ConditionEditor from './ConditionEditor.vue'
import GoLive from './GoLive.vue'
import LeavingShore from './LeavingShore.vue'
import MatchEditor from './MatchEditor.vue'
import ProofSheet from './ProofSheet.vue'
import RuleCard from './RuleCard.vue'
import SampleStrip from './SampleStrip.vue'
import WholeDocument from './WholeDocument.vue'
import { readLanguage } from './api'
import { isGroup, type Group, type Tree } from './tree'
import { useDraft } from './useDraft'
import { useTrial } from './useTrial'

/** The desk: what arrives, the rules, and what leaves, computed for real events while they are edited. */
const props = defineProps<{ id: string }>()
const router = useRouter()
const draft = useDraft(props.id)
const sample = ref(0)
const { trial, error: trialError, run } = useTrial(draft.text, sample)
const { data: language, load: loadLanguage } = useResource(readLanguage)
const open = ref('')
const proof = ref(false)
const going = ref(false)
const whole = ref(false)
const taking = ref<((address: string) => void) | null>(null)

onMounted(() => {
  void draft.load()
  void loadLanguage()
  window.addEventListener('keydown', keys)
})
onUnmounted(() => window.removeEventListener('keydown', keys))

function keys(event: KeyboardEvent) {
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  const at = event.target as HTMLElement
  // In a text field the browser's own undo comes first.
  if (['INPUT', 'TEXTAREA'].includes(at.tagName)) return
  event.preventDefault()
  if (event.shiftKey) draft.redo()
  else draft.undo()
}

const doc = draft.doc
const rules = computed<Group>(() => (isGroup(doc.value?.fields) ? doc.value.fields : {}))
const ordered = computed(() => {
  const places = Object.keys(rules.value)
  return (trial.value?.leaving ?? [])
    .filter((field) => field.ruled || field.required)
    .sort((a, b) => places.indexOf(a.key) - places.indexOf(b.key))
})
const unruled = computed(() =>
  (trial.value?.leaving ?? []).filter((field) => !field.ruled && !field.required),
)
const fieldChoices = computed(() =>
  unruled.value.map((field) => ({ key: field.key, words: field.name, hint: field.type })),
)
const match = computed(() => {
  const parts = doc.value?.match
  return Array.isArray(parts) ? parts.map(String) : []
})
const used = computed(() => {
  const text = JSON.stringify(rules.value)
  return new Set(
    (trial.value?.arriving ?? [])
      .flatMap((group) => group.fields)
      .map((field) => field.address)
      .filter((address) => text.includes(address)),
  )
})
const elsewhere = computed(() =>
  (trial.value?.problems ?? []).filter((problem) => !problem.path.startsWith('fields')),
)

const STATES: Record<string, string> = {
  kept: 'Kept',
  typing: 'Typing…',
  keeping: 'Keeping…',
  conflict: 'Changed by someone else',
  failed: 'Not kept',
}

function setRule(field: string, rule: Tree) {
  if (doc.value) draft.change({ ...doc.value, fields: { ...rules.value, [field]: rule } })
}

function setPart(key: string, part: Tree | undefined) {
  if (!doc.value) return
  const rest = Object.fromEntries(Object.entries(doc.value).filter(([name]) => name !== key))
  draft.change(part === undefined ? rest : { ...doc.value, [key]: part })
}

function removeRule(field: string) {
  const rest = Object.fromEntries(Object.entries(rules.value).filter(([key]) => key !== field))
  if (doc.value) draft.change({ ...doc.value, fields: rest })
}

function addRule(field: string) {
  const type = trial.value?.leaving.find((one) => one.key === field)?.type ?? 'text'
  setRule(field, type === 'text' ? { text: '' } : { value: '' })
  open.value = field
}

function show(field: string) {
  open.value = field
  document.getElementById(`rule-${field}`)?.scrollIntoView({ block: 'nearest' })
}

function picked(address: string) {
  taking.value?.(address)
  taking.value = null
}

async function go() {
  if (await draft.putToWork()) {
    going.value = false
    await router.push({ name: 'bridge', params: { id: props.id } })
  }
}

function giveUp() {
  void draft.drop().then(() => {
    if (draft.liveVersion.value === null) void router.push({ name: 'bridges' })
  })
}

async function copyAsDocument() {
  await navigator.clipboard.writeText(JSON.stringify(doc.value, null, 2))
}
</script>

<template>
  <div class="desk">
    <div class="heading">
      <h1>{{ typeof doc?.name === 'string' ? doc.name : id }}</h1>
      <span class="pill">{{
        draft.liveVersion.value === null
          ? 'draft, not live yet'
          : `draft over version ${draft.liveVersion.value}`
      }}</span>
      <span class="state" :class="draft.state.value" role="status">{{
        STATES[draft.state.value]
      }}</span>
      <button v-if="draft.state.value === 'conflict'" class="btn" @click="draft.load">
        Take theirs
      </button>
      <button v-if="draft.state.value === 'conflict'" class="btn" @click="copyAsDocument">
        Copy mine
      </button>
      <span class="gap"></span>
      <button class="btn" :disabled="!draft.canUndo.value" @click="draft.undo">Undo</button>
      <button class="btn" :disabled="!draft.canRedo.value" @click="draft.redo">Redo</button>
      <button class="btn" :aria-pressed="proof" @click="proof = !proof">Proof sheet</button>
      <button class="btn" :disabled="draft.revision.value === 0" @click="giveUp">
        Give up the draft
      </button>
      <button class="btn main" :disabled="!trial" @click="going = true">Go live…</button>
    </div>
    <p v-if="draft.error.value && draft.state.value !== 'kept'" class="note bad" role="alert">
      {{ draft.error.value }}
    </p>
    <p v-if="trialError" class="note bad" role="alert">{{ trialError }}</p>
    <SampleStrip
      v-if="trial?.samples.length"
      :samples="trial.samples"
      :in-view="trial.inView"
      @show="sample = $event"
      @again="run(true)"
    />
    <p v-else-if="trial" class="note">
      No event of this kind was received yet. The rules can be written all the same; the first event
      that comes shows what they make of it.
      <button class="btn" @click="run(true)">Look again</button>
    </p>
    <div v-if="trial && language" class="shores">
      <ArrivingShore
        :groups="trial.arriving"
        :used="used"
        :picking="taking !== null"
        @pick="picked"
      />
      <section class="rules" aria-labelledby="rules">
        <h2 id="rules">Rules</h2>
        <p v-for="problem in elsewhere" :key="problem.path" class="problem">
          <b>{{ problem.path.split('/')[0] }}</b> {{ problem.message }}
        </p>
        <ConditionEditor
          :when="doc?.when"
          :arriving="trial.arriving"
          :results="trial.tests"
          :language="language"
          @change="setPart('when', $event)"
        />
        <MatchEditor
          :match="match"
          :arriving="trial.arriving"
          :samples="trial.samples"
          @change="setPart('match', $event)"
        />
        <h2>
          Fields
          <small
            >{{ ordered.length }} rules<template v-if="trial.samples.length"
              >; {{ trial.passing }} of {{ trial.samples.length }} events pass</template
            ></small
          >
        </h2>
        <RuleCard
          v-for="field in ordered"
          :id="`rule-${field.key}`"
          :key="field.key"
          :field="field"
          :rule="rules[field.key]"
          :arriving="trial.arriving"
          :language="language"
          :open="open === field.key"
          @toggle="open = open === field.key ? '' : field.key"
          @change="setRule(field.key, $event)"
          @remove="removeRule(field.key)"
          @pick="taking = $event"
        />
        <div v-if="unruled.length" class="more">
          <AddBy label="Add a field" :choices="fieldChoices" @add="addRule" />
        </div>
        <details class="whole" @toggle="whole = ($event.target as HTMLDetailsElement).open">
          <summary>The whole as a document: lookups, values, conditions, match key</summary>
          <WholeDocument v-if="whole" :id="id" :text="draft.text.value" @change="draft.change" />
        </details>
      </section>
      <LeavingShore :trial="trial" :open="open" @show="show" />
    </div>
    <ProofSheet
      v-if="proof"
      :id="id"
      :text="draft.text.value"
      @show="show"
      @close="proof = false"
    />
    <GoLive
      v-if="going && trial"
      :id="id"
      :text="draft.text.value"
      :trial="trial"
      :live-version="draft.liveVersion.value"
      :error="draft.error.value"
      @go="go"
      @close="going = false"
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
.heading h1 {
  white-space: nowrap;
}
.pill {
  color: var(--clay);
}
.state {
  font-size: 12px;
  color: var(--ink-2);
  min-width: 60px;
}
.state.conflict,
.state.failed {
  color: var(--failed);
  font-weight: 650;
}
.shores {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 256px minmax(0, 1fr) 280px;
}
.rules {
  padding: 12px 14px;
  overflow: auto;
}
.problem {
  color: var(--failed);
}
.whole {
  margin: 14px 4px;
}
.whole summary {
  cursor: pointer;
  color: var(--kelp);
  font-weight: 600;
  margin-bottom: 6px;
}
.more {
  padding: 10px 4px;
}
</style>
