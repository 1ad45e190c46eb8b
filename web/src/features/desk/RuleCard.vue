<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { ArrivingGroup, LanguageView, LeavingField } from './api'
import { useSession } from '@/shared/composables/session'
import { momentText } from '@/shared/format/time'
import AddBy from './AddBy.vue'
import RuleSource from './RuleSource.vue'
import StepEditor from './StepEditor.vue'
import TakeAlong from './TakeAlong.vue'
import {
  moved,
  ruleGroup,
  sourceKind,
  stepsOf,
  withSteps,
  type SourceKind,
  type Tree,
} from './tree'

/** One field rule: a sentence when closed, every part editable in place when open. */
const props = defineProps<{
  field: LeavingField
  rule: Tree | undefined
  arriving: ArrivingGroup[]
  language: LanguageView
  open: boolean
}>()
const emit = defineEmits<{
  change: [rule: Tree]
  remove: []
  toggle: []
  pick: [take: (address: string) => void]
  table: [id: string]
}>()

const { zone } = useSession()
const kind = computed<SourceKind>(() => sourceKind(props.rule))
const group = computed(() => ruleGroup(props.rule))
const steps = computed(() => stepsOf(props.rule))
const openStep = ref(-1)
const asDocument = ref('')
const documentError = ref('')
const list = useTemplateRef<HTMLElement>('list')

const fields = computed(() => props.arriving.flatMap((g) => g.fields))
const nameOf = (address: string) =>
  fields.value.find((field) => field.address === address)?.name ?? address

const sentence = computed(() => {
  const source = group.value[kind.value]
  switch (kind.value) {
    case 'value':
      return nameOf(String(source))
    case 'text':
      return String(source).replace(/\{([^{}]+)\}/g, (_, at: string) => `‹${nameOf(at)}›`)
    case 'always':
      return `always ${[source]
        .flat()
        .map((key) => props.field.names[String(key)] ?? String(key))
        .join(', ')}`
    case 'texts':
      return `${Array.isArray(source) ? source.length : 0} texts`
    case 'cases':
      return 'by case'
    default:
      return 'something of each item'
  }
})

const setSteps = (next: Tree[]) => emit('change', withSteps(props.rule, next))

/** Steps have no names of their own: what stays the same tree stays the same step on the page. */
const numbers = new WeakMap<object, number>()
let last = 0
const keys = computed(() => {
  const counts = new Map<string, number>()
  return steps.value.map((step) => {
    if (typeof step === 'object' && step !== null) {
      if (!numbers.has(step)) numbers.set(step, (last += 1))
      return `${numbers.get(step)}`
    }
    const count = counts.get(String(step)) ?? 0
    counts.set(String(step), count + 1)
    return `${String(step)} ${count}`
  })
})

/** Alt and an arrow move a step; Delete alone removes it, which Backspace does not mean. */
function onKey(event: KeyboardEvent, place: number) {
  const act =
    event.altKey && event.key === 'ArrowUp'
      ? () => move(place, -1)
      : event.altKey && event.key === 'ArrowDown'
        ? () => move(place, 1)
        : event.key === 'Delete'
          ? () => remove(place)
          : undefined
  if (act) {
    event.preventDefault()
    act()
  }
}

function remove(place: number) {
  if (openStep.value === place) openStep.value = -1
  if (openStep.value > place) openStep.value -= 1
  setSteps(steps.value.filter((_, k) => k !== place))
}

/** Replaces an option of a step, which stays the same step. */
function setStep(place: number, next: Tree) {
  const old = steps.value[place]
  if (typeof old === 'object' && old !== null && typeof next === 'object' && next !== null) {
    numbers.set(next, numbers.get(old) ?? (last += 1))
  }
  setSteps(steps.value.map((one, k) => (k === place ? next : one)))
}

function add(name: string) {
  const known = props.language.steps.find((one) => one.name === name)
  if (!known) return
  const first = known.options[0]
  const start: Tree =
    known.testing || known.options.some((option) => option.required)
      ? {
          [name]: known.bare && first ? (first.type === 'bands' ? {} : (first.words[0] ?? '')) : {},
        }
      : name
  setSteps([...steps.value, start])
  openStep.value = steps.value.length
}

function move(place: number, by: number) {
  const to = place + by
  if (to < 0 || to >= steps.value.length) return
  if (openStep.value === place) openStep.value = to
  else if (openStep.value === to) openStep.value = place
  setSteps(moved(steps.value, place, by))
  void nextTick(() =>
    (list.value?.children[place + by]?.querySelector('button') as HTMLElement)?.focus(),
  )
}

function editAsDocument(text: string) {
  asDocument.value = text
  try {
    emit('change', JSON.parse(text) as Tree)
    documentError.value = ''
  } catch (e) {
    documentError.value = (e as Error).message
  }
}

// What comes from elsewhere, an undo for example, counts over what was typed here before it.
watch(
  () => props.rule,
  (rule) => {
    let typed: unknown
    try {
      typed = JSON.parse(asDocument.value)
    } catch {
      // It is no document yet, and the rule is as it was before.
      typed = undefined
    }
    if (asDocument.value && JSON.stringify(typed) !== JSON.stringify(rule)) {
      asDocument.value = ''
      documentError.value = ''
    }
  },
)

const stepChoices = computed(() =>
  props.language.steps.map((one) => ({
    key: one.name,
    words: one.name.replaceAll('-', ' '),
    hint: one.summary.replaceAll('`', ''),
  })),
)
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="rule" :class="{ open, bad: field.problem }">
    <button
      class="head"
      :aria-expanded="open"
      :aria-label="`${field.name}: ${rule === undefined ? 'no rule yet' : sentence}`"
      @click="emit('toggle')"
    >
      <span class="name"
        >{{ field.name }}<span v-if="field.required" class="must">, needed</span></span
      >
      <span class="line">
        <template v-if="rule === undefined"><span class="dim">no rule yet</span></template>
        <template v-else>
          <b>{{ sentence || '…' }}</b><span v-for="(step, i) in field.steps" :key="i" class="mid"
            >, {{ step.sentence }}</span
          >
        </template>
      </span>
      <span class="now mono" :class="{ no: !field.shown }" :title="field.value">{{
        field.problem ? '✕' : momentText(field.shown, zone) || '–'
      }}</span>
    </button>
    <p v-if="field.problem" class="problem" role="status">{{ field.problem }}</p>
    <div v-if="open && rule !== undefined" class="body">
      <RuleSource
        v-if="['value', 'text', 'texts', 'always'].includes(kind)"
        :field="field"
        :rule="rule"
        :arriving="arriving"
        @change="emit('change', $event)"
        @pick="emit('pick', $event)"
      />
      <label v-else class="document">
        <span class="mid">This rule is {{ sentence }}. It is edited as its document.</span>
        <textarea
          class="in mono"
          rows="8"
          :value="asDocument || JSON.stringify(rule, null, 1)"
          @input="editAsDocument(value($event))"
        ></textarea>
        <span v-if="documentError" class="problem">{{ documentError }}</span>
      </label>
      <p v-if="field.start && kind !== 'always'" class="result">
        <span class="mid">starts as</span> <span class="mono">{{ field.start }}</span>
      </p>
      <ol ref="list">
        <li v-for="(step, i) in steps" :key="keys[i]">
          <div class="step">
            <button
              class="say"
              :aria-expanded="openStep === i"
              @click="openStep = openStep === i ? -1 : i"
              @keydown="onKey($event, i)"
            >
              {{
                field.steps[i]?.sentence ?? (typeof step === 'string' ? step : Object.keys(step)[0])
              }}
            </button>
            <span class="mono after" :class="{ bad: field.steps[i]?.problem }">{{
              field.steps[i]?.problem || momentText(field.steps[i]?.value ?? '', zone)
            }}</span>
            <TakeAlong
              kind="steps"
              :name="field.steps[i]?.sentence ?? 'this step'"
              :tree="[step]"
            />
            <button class="btn bare x" :aria-label="`Remove this step`" @click="remove(i)">
              Remove
            </button>
          </div>
          <StepEditor
            v-if="openStep === i"
            :step="step"
            :language="language"
            @change="(next) => setStep(i, next)"
            @table="emit('table', $event)"
          />
        </li>
      </ol>
      <div class="foot">
        <AddBy label="Add a step" :choices="stepChoices" @add="add" />
        <span class="dim"
          ><kbd>Alt</kbd> <kbd>↑</kbd> <kbd>↓</kbd> moves, <kbd>Delete</kbd> removes</span
        >
        <TakeAlong v-if="steps.length > 1" kind="steps" :name="`of ${field.name}`" :tree="steps" />
        <TakeAlong kind="rule" :name="field.name" :tree="rule" />
        <button v-if="!field.required" class="btn bare" @click="emit('remove')">
          Remove the rule
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.rule {
  border-bottom: 1px solid var(--line);
}
.rule.open {
  background: var(--panel);
  border-left: 2px solid var(--clay);
}
.head {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr) minmax(60px, 190px);
  gap: 14px;
  width: 100%;
  text-align: left;
  padding: 7px 12px 7px 4px;
  border: 0;
  background: none;
  color: var(--ink);
  cursor: pointer;
}
.name {
  text-align: right;
  color: var(--ink-2);
}
.must {
  color: var(--clay);
}
.line b {
  font-weight: 650;
}
.now {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  text-align: right;
  color: var(--kelp);
}
.now.no {
  color: var(--ink-3);
}
.problem {
  color: var(--failed);
  padding: 0 12px 6px 122px;
}
.body {
  padding: 0 12px 12px 122px;
}
.document {
  display: grid;
  gap: 4px;
}
.result {
  margin-top: 6px;
  overflow-wrap: anywhere;
}
ol {
  list-style: none;
  margin: 6px 0;
  padding: 0;
}
.step {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 10px;
  align-items: baseline;
  border-top: 1px dotted var(--line-2);
}
.say {
  text-align: left;
  border: 0;
  background: none;
  color: var(--ink);
  padding: 5px 0;
  cursor: pointer;
  text-decoration: underline;
  text-decoration-color: var(--line-2);
  text-underline-offset: 3px;
}
.after {
  color: var(--kelp);
  overflow-wrap: anywhere;
}
.after.bad {
  color: var(--failed);
}
.x {
  padding: 0 4px;
}
.foot {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
</style>
