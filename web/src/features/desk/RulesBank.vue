<script setup lang="ts">
import { computed, provide, ref, watch } from 'vue'
import AddBy from './AddBy.vue'
import CeilingEditor from './CeilingEditor.vue'
import ChangedRecord from './ChangedRecord.vue'
import ConditionEditor from './ConditionEditor.vue'
import LookupEditor from './LookupEditor.vue'
import EveryEditor from './EveryEditor.vue'
import MatchEditor from './MatchEditor.vue'
import OwnWrites from './OwnWrites.vue'
import PartAtHand from './PartAtHand.vue'
import RuleCard from './RuleCard.vue'
import SuggestedPairs from './SuggestedPairs.vue'
import TaskGone from './TaskGone.vue'
import TableDialog from './TableDialog.vue'
import ThenEditor from './ThenEditor.vue'
import ValuesEditor from './ValuesEditor.vue'
import WholeDocument from './WholeDocument.vue'
import type { ArrivingGroup, LanguageView, LookupPlace, PlaceView, TrialView } from './api'
import { isGroup, isOpen, type Group, type Tree } from './tree'
import { ChoresEditor } from '@/features/chores'
import { PlacesEditor } from '@/features/places'
import { TimesEditor } from '@/features/times'
import { counted } from '@/shared/format/words'

/** All that a bridge says, in the order in which an event meets it. */
const props = defineProps<{
  id: string
  doc: Group
  text: string
  trial: TrialView
  language: LanguageView
  places: LookupPlace[]
  source: PlaceView | undefined
  target: PlaceView | undefined
  targets: PlaceView[]
  bridges: { id: string; name: string }[]
}>()
const open = defineModel<string>('open', { required: true })
const emit = defineEmits<{
  change: [doc: Group]
  pick: [take: (address: string) => void]
  reread: []
}>()
provide(
  'bridge-name',
  computed(() => String(props.doc.name ?? props.id)),
)
const whole = ref(false)
const table = ref('')

const rules = computed<Group>(() => (isGroup(props.doc.fields) ? props.doc.fields : {}))
const ordered = computed(() => {
  const places = Object.keys(rules.value)
  return props.trial.leaving
    .filter((field) => field.ruled || field.required)
    .sort((a, b) => places.indexOf(a.key) - places.indexOf(b.key))
})
const unruled = computed(() =>
  props.trial.leaving.filter((field) => !field.ruled && !field.required),
)
const fieldChoices = computed(() =>
  unruled.value.map((field) => ({ key: field.key, words: field.name, hint: field.type })),
)
/** The fields for which a pair may be offered; the same list as long as it holds the same. */
const openFields = ref<string[]>([])
watch(
  () =>
    props.trial.leaving
      .filter((field) => isOpen(rules.value[field.key]))
      .map((field) => field.key)
      .join(' '),
  (joined) => (openFields.value = joined ? joined.split(' ') : []),
  { immediate: true },
)
const match = computed(() => {
  const parts = props.doc.match
  return Array.isArray(parts) ? parts.map(String) : []
})
/** The kinds of event that it hears. */
const kinds = computed(() => {
  const said = isGroup(props.doc.from) ? props.doc.from.event : undefined
  return Array.isArray(said) ? said.map(String) : said ? [String(said)] : []
})
/** What rules can start from: what arrives, and the values that the bridge names. */
const sources = computed<ArrivingGroup[]>(() => {
  const named = isGroup(props.doc.values) ? Object.keys(props.doc.values) : []
  if (!named.length) return props.trial.arriving
  const fields = named.map((name) => {
    const value = props.trial.values.find((one) => one.name === name)
    return {
      address: `values/${name}`,
      name,
      type: value?.type ?? 'text',
      value: value?.value ?? '',
      items: [],
      filled: 0,
      of: 0,
      others: [],
      alike: [],
    }
  })
  return [...props.trial.arriving, { title: 'values of this bridge', fields }]
})
/** The fields of a record of the source itself. */
const cells = computed(() =>
  props.trial.arriving
    .flatMap((group) => group.fields)
    .filter((field) => /^\/(?!occurrence\/)/.test(field.address)),
)
const ANSWERED = ['fields', 'values', 'lookups', 'then']
const elsewhere = computed(() =>
  props.trial.problems.filter(
    (problem) =>
      !ANSWERED.includes(problem.path.split('/')[0]!) &&
      !/^from\/(times|chores)/.test(problem.path),
  ),
)
const unknownTables = computed(() => [...new Set(props.trial.unknownKeys.map((one) => one.table))])
/** What people call the keys of all target fields. */
const names = computed(
  () =>
    Object.assign({}, ...props.trial.leaving.map((field) => field.names)) as Record<string, string>,
)
const several = computed(() => ['for-each', 'set'].find((plan) => plan in props.doc))

function setPart(key: string, part: Tree | undefined) {
  const rest = Object.fromEntries(Object.entries(props.doc).filter(([name]) => name !== key))
  emit('change', part === undefined ? rest : { ...props.doc, [key]: part })
}

const setRule = (field: string, rule: Tree) => setPart('fields', { ...rules.value, [field]: rule })

function removeRule(field: string) {
  setPart(
    'fields',
    Object.fromEntries(Object.entries(rules.value).filter(([key]) => key !== field)),
  )
}

function addRule(field: string) {
  const type = props.trial.leaving.find((one) => one.key === field)?.type ?? 'text'
  setRule(field, type === 'text' ? { text: '' } : { value: '' })
  open.value = field
}

function keptRows() {
  table.value = ''
  emit('reread')
}
</script>

<template>
  <section class="rules" aria-labelledby="rules">
    <h2 id="rules">Rules</h2>
    <PartAtHand :doc="doc" :leaving="trial.leaving" @change="emit('change', $event)" />
    <p v-for="problem in elsewhere" :key="problem.path" class="bad">
      <b>{{ problem.path.split('/')[0] }}</b> {{ problem.message }}
    </p>
    <TimesEditor
      v-if="isGroup(doc.from) && 'times' in doc.from"
      :from="doc.from"
      :calendars="language.calendars"
      @change="setPart('from', $event)"
    />
    <ChoresEditor
      v-if="
        source &&
        !trial.start.places &&
        isGroup(doc.from) &&
        !('times' in doc.from) &&
        !('between' in doc)
      "
      :id="id"
      :doc="doc"
      :record="source.record"
      :cells="cells"
      :calendars="language.calendars"
      @change="emit('change', $event)"
    />
    <PlacesEditor
      v-if="source && isGroup(doc.from) && !('chores' in doc.from) && !('between' in doc)"
      :doc="doc"
      :system="source.system"
      :collection="trial.start.collection"
      :kinds="kinds"
      :target="trial.start.targetCollection"
      @change="emit('change', $event)"
    />
    <EveryEditor
      v-if="source?.everySeconds"
      :from="doc.from"
      :place="source"
      @change="setPart('from', $event)"
    />
    <OwnWrites
      v-if="source?.writes"
      :from="doc.from"
      :place="source"
      @change="setPart('from', $event)"
    />
    <ChangedRecord
      v-if="target && isGroup(doc.to) && 'record' in doc.to"
      :to="doc.to"
      :record="target.record"
      :arriving="trial.arriving"
      @change="setPart('to', $event)"
    />
    <TaskGone
      v-else-if="target?.changes && isGroup(doc.to)"
      :to="doc.to"
      :place="target"
      @change="setPart('to', $event)"
    />
    <LookupEditor
      :lookups="doc.lookups"
      :found="trial.lookups"
      :arriving="trial.arriving"
      :places="places"
      :bridges="bridges"
      :here="trial.start.places ? `${source?.system}/${trial.start.collection}` : undefined"
      :problems="trial.problems"
      @change="setPart('lookups', $event)"
    />
    <ConditionEditor
      :when="doc.when"
      :arriving="sources"
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
    <p v-for="one in unknownTables" :key="one" class="unknown">
      Not in the table <b>{{ one }}</b>:
      {{
        trial.unknownKeys
          .filter((key) => key.table === one)
          .map((key) => (key.keys.some(Boolean) ? `“${key.keys.join(', ')}”` : 'an empty key'))
          .join(', ')
      }}
      <button class="btn" @click="table = one">Add to the table…</button>
    </p>
    <h2>
      Fields
      <small
        >{{ counted(ordered.length, 'rule')
        }}<template v-if="trial.samples.length"
          >; {{ trial.passing }} of {{ trial.samples.length }} events pass</template
        ></small
      >
    </h2>
    <p v-if="several" class="mid">
      One event makes several tasks here ({{ several.replace('-', ' ') }}); which ones is said in
      the document below.
    </p>
    <RuleCard
      v-for="field in ordered"
      :id="`rule-${field.key}`"
      :key="field.key"
      :field="field"
      :rule="rules[field.key]"
      :arriving="sources"
      :language="language"
      :open="open === field.key"
      @toggle="open = open === field.key ? '' : field.key"
      @change="setRule(field.key, $event)"
      @remove="removeRule(field.key)"
      @pick="emit('pick', $event)"
      @table="table = $event"
    />
    <SuggestedPairs :id="id" :text="text" :open="openFields" @take="setRule" />
    <div v-if="unruled.length" class="more">
      <AddBy label="Add a field" :choices="fieldChoices" @add="addRule" />
    </div>
    <h2>Then <small>in this order, each once</small></h2>
    <ThenEditor
      :then="doc.then"
      :found="trial.then"
      :arriving="sources"
      :language="language"
      :source="source"
      :places="targets"
      :one-task="!several && isGroup(doc.to)"
      @change="setPart('then', $event)"
      @pick="emit('pick', $event)"
      @table="table = $event"
    />
    <h2>Values <small>named once, used by several rules</small></h2>
    <ValuesEditor
      :values="doc.values"
      :found="trial.values"
      :arriving="trial.arriving"
      :language="language"
      :problems="trial.problems"
      @change="setPart('values', $event)"
      @pick="emit('pick', $event)"
      @table="table = $event"
    />
    <h2>Ceiling</h2>
    <CeilingEditor :ceiling="doc.ceiling" @change="setPart('ceiling', $event)" />
    <details class="whole" @toggle="whole = ($event.target as HTMLDetailsElement).open">
      <summary>The whole as a document, and earlier versions</summary>
      <WholeDocument v-if="whole" :id="id" :text="text" @change="emit('change', $event)" />
    </details>
    <TableDialog
      v-if="table"
      :table="table"
      :unknown="trial.unknownKeys.filter((one) => one.table === table)"
      :names="names"
      @kept="keptRows"
      @close="table = ''"
    />
  </section>
</template>

<style scoped>
.rules {
  padding: 12px 14px;
  overflow: auto;
}
.unknown {
  color: var(--held);
  padding: 4px;
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
