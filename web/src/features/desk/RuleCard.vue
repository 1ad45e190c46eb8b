<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { ArrivingGroup, LanguageView, LeavingField } from './api'
import { useSession } from '@/shared/composables/session'
import { momentText } from '@/shared/format/time'
import AddBy from './AddBy.vue'
import RuleSource from './RuleSource.vue'
import StepEditor from './StepEditor.vue'
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
        <li v-for="(step, i) in steps" :key="i">
          <div class="step">
            <button
              class="say"
              :aria-expanded="openStep === i"
              @click="openStep = openStep === i ? -1 : i"
              @keydown.alt.up.prevent="move(i, -1)"
              @keydown.alt.down.prevent="move(i, 1)"
              @keydown.delete.prevent="setSteps(steps.filter((_, k) => k !== i))"
            >
              {{
                field.steps[i]?.sentence ?? (typeof step === 'string' ? step : Object.keys(step)[0])
              }}
            </button>
            <span class="mono after" :class="{ bad: field.steps[i]?.problem }">{{
              field.steps[i]?.problem || momentText(field.steps[i]?.value ?? '', zone)
            }}</span>
            <button
              class="btn bare x"
              :aria-label="`Remove this step`"
              @click="setSteps(steps.filter((_, k) => k !== i))"
            >
              Remove
            </button>
          </div>
          <StepEditor
            v-if="openStep === i"
            :step="step"
            :language="language"
            @change="(next) => setSteps(steps.map((old, k) => (k === i ? next : old)))"
            @table="emit('table', $event)"
          />
        </li>
      </ol>
      <div class="foot">
        <AddBy label="Add a step" :choices="stepChoices" @add="add" />
        <span class="dim"
          ><kbd>Alt</kbd> <kbd>↑</kbd> <kbd>↓</kbd> moves, <kbd>Delete</kbd> removes</span
        >
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
