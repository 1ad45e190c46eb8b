<script setup lang="ts">
import { computed, ref } from 'vue'
import AddBy from './AddBy.vue'
import ChangedRecord from './ChangedRecord.vue'
import ConditionEditor from './ConditionEditor.vue'
import RuleCard from './RuleCard.vue'
import TakeAlong from './TakeAlong.vue'
import type { AfterView, ArrivingGroup, LanguageView, PlaceView } from './api'
import { isGroup, withKey, type Group, type Tree } from './tree'

/** What else comes of an event after its tasks: the record it came from is changed, others are told. */
const props = defineProps<{
  then: Tree | undefined
  found: AfterView[]
  arriving: ArrivingGroup[]
  language: LanguageView
  source: PlaceView | undefined
  places: PlaceView[]
  oneTask: boolean
}>()
const emit = defineEmits<{
  change: [then: Tree | undefined]
  pick: [take: (address: string) => void]
  table: [id: string]
}>()
const open = ref('')

const effects = computed<[string, Group][]>(() =>
  isGroup(props.then)
    ? Object.entries(props.then).filter((one): one is [string, Group] => isGroup(one[1]))
    : [],
)
const rulesOf = (effect: Group): Group => (isGroup(effect.fields) ? effect.fields : {})
const foundOf = (name: string) => props.found.find((one) => one.name === name)
const ruled = (name: string) =>
  foundOf(name)?.fields.filter((field) => field.ruled || field.required) ?? []
const choicesOf = (name: string) =>
  (foundOf(name)?.fields ?? [])
    .filter((field) => !field.ruled && !field.required)
    .map((field) => ({ key: field.key, words: field.name, hint: field.type }))
/** Which card is open is told by what it is of, too, as two may write fields of one name. */
const cardOf = (name: string, field: string) => `${name}/${field}`

/** What rules can start from here: what arrives, and the task that was made. */
const sources = computed<ArrivingGroup[]>(() =>
  props.oneTask
    ? [...props.arriving, { title: 'the task that was made', fields: MADE }]
    : props.arriving,
)
const part = (address: string, name: string, type: string) => ({
  address,
  name,
  type,
  value: '',
  items: [],
  filled: 0,
  of: 0,
  others: [],
  alike: [],
})
const MADE = [
  part('made/id', 'id of the task', 'text'),
  part('made/link', 'link of the task', 'link'),
]

const RECORD = 'record'
/** Before the place of a record that is there already and is changed. */
const CHANGE = 'change '
const choices = computed(() => [
  ...(props.source?.changes
    ? [
        {
          key: RECORD,
          words: `change the ${props.source.record} it came from`,
          hint: props.source.systemName,
        },
      ]
    : []),
  ...props.places
    .filter((place) => !place.hindrance)
    .map((place) => ({
      key: `${place.system}/${place.collection}`,
      words: `make a ${place.record} at ${place.systemName}`,
      hint: place.name,
    })),
  ...props.places
    .filter((place) => place.changes)
    .map((place) => ({
      key: `${CHANGE}${place.system}/${place.collection}`,
      words: `change a ${place.record} at ${place.systemName}`,
      hint: place.name,
    })),
])
/** Where something is done that names no record of the event. */
const placeOf = (to: Tree | undefined) =>
  isGroup(to)
    ? props.places.find((place) => place.system === to.system && place.collection === to.collection)
    : undefined
const isChange = (to: Tree | undefined) => isGroup(to) && RECORD in to

const put = (entries: [string, Tree][]) =>
  emit('change', entries.length ? Object.fromEntries(entries) : undefined)
const set = (name: string, next: Tree) =>
  put(effects.value.map(([key, old]) => [key, key === name ? next : old]))
const setRule = (name: string, effect: Group, field: string, rule: Tree) =>
  set(name, { ...effect, fields: { ...rulesOf(effect), [field]: rule } })
const removeRule = (name: string, effect: Group, field: string) =>
  set(name, { ...effect, fields: withKey(rulesOf(effect), field, undefined) })

function addRule(name: string, effect: Group, field: string) {
  const type = foundOf(name)?.fields.find((one) => one.key === field)?.type ?? 'text'
  setRule(name, effect, field, type === 'text' ? { text: '' } : { value: '' })
  open.value = cardOf(name, field)
}

function add(choice: string) {
  const changes = choice.startsWith(CHANGE)
  const [system, collection] = choice.slice(changes ? CHANGE.length : 0).split('/')
  const place = props.places.find((one) => one.system === system && one.collection === collection)
  const base = choice === RECORD ? 'back' : (place?.record ?? 'then').replaceAll(' ', '-')
  let name = base
  for (let i = 2; effects.value.some(([key]) => key === name); i++) name = `${base}-${i}`
  const at: Group = { system: system!, collection: collection! }
  const to: Tree = choice === RECORD ? RECORD : changes ? { ...at, [RECORD]: '' } : at
  put([...effects.value, [name, { to, fields: {} }]])
}
</script>

<template>
  <div class="then">
    <section v-for="[name, effect] in effects" :key="name" :aria-label="`Then ${name}`">
      <h3>
        {{ name.replaceAll('-', ' ') }}
        <small v-if="foundOf(name)">{{ foundOf(name)!.what }}</small>
        <TakeAlong kind="then" :name="name" :tree="effect" />
        <button
          class="btn bare"
          :aria-label="`Leave ${name} out`"
          @click="put(effects.filter(([key]) => key !== name))"
        >
          ✕
        </button>
      </h3>
      <p v-if="foundOf(name)?.problem" class="bad">✕ {{ foundOf(name)!.problem }}</p>
      <p v-else-if="foundOf(name)?.because" class="mid">
        Not for this event: {{ foundOf(name)!.because }}
      </p>
      <ChangedRecord
        v-if="isChange(effect.to)"
        :to="effect.to"
        :record="placeOf(effect.to)?.record ?? 'record'"
        :arriving="arriving"
        @change="set(name, { ...effect, to: $event })"
      />
      <ConditionEditor
        :when="effect.when"
        :arriving="arriving"
        :results="[]"
        :language="language"
        @change="set(name, withKey(effect, 'when', $event))"
      />
      <RuleCard
        v-for="field in ruled(name)"
        :key="field.key"
        :field="field"
        :rule="rulesOf(effect)[field.key]"
        :arriving="sources"
        :language="language"
        :open="open === cardOf(name, field.key)"
        @toggle="open = open === cardOf(name, field.key) ? '' : cardOf(name, field.key)"
        @change="setRule(name, effect, field.key, $event)"
        @remove="removeRule(name, effect, field.key)"
        @pick="emit('pick', $event)"
        @table="emit('table', $event)"
      />
      <AddBy
        v-if="choicesOf(name).length"
        label="Add a field"
        :choices="choicesOf(name)"
        @add="addRule(name, effect, $event)"
      />
    </section>
    <AddBy label="Add what comes then" :choices="choices" @add="add" />
  </div>
</template>

<style scoped>
.then {
  display: grid;
  gap: 10px;
  padding: 4px;
}
section {
  border-left: 3px solid var(--tide-line);
  padding-left: 10px;
}
h3 {
  font-size: 14px;
  font-weight: 650;
}
h3 small {
  font-weight: 400;
  color: var(--ink-2);
  margin-left: 6px;
}
h3 .btn {
  margin-left: 8px;
}
</style>
