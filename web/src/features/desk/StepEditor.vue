<script setup lang="ts">
import { computed } from 'vue'
import type { LanguageView, OptionView } from './api'
import { groupToLines, isGroup, linesToGroup, stepOf, stepParts, type Tree } from './tree'

/** The options of one step, each with a control that fits it. */
const props = defineProps<{ step: Tree; language: LanguageView }>()
const emit = defineEmits<{ change: [step: Tree]; table: [id: string] }>()

const kindOf = (name: string) => props.language.steps.find((kind) => kind.name === name)
const bareOf = (name: string) => {
  const kind = kindOf(name)
  return kind?.bare ? kind.options[0]?.name : undefined
}
const parts = computed(() => stepParts(props.step, bareOf))
const kind = computed(() => kindOf(parts.value.name))
const operator = computed(
  () => props.language.operators.find((key) => key in parts.value.options) ?? 'equal',
)

function set(name: string, value: Tree) {
  const options = { ...parts.value.options, [name]: value }
  if (value === '') delete options[name]
  emit('change', stepOf({ name: parts.value.name, options }, bareOf(parts.value.name)))
}

function setOperator(next: string) {
  const options = { ...parts.value.options }
  const operand = options[operator.value] ?? ''
  delete options[operator.value]
  options[next] = next === 'is' ? 'present' : operand
  emit('change', stepOf({ name: parts.value.name, options }, bareOf(parts.value.name)))
}

const shown = (option: OptionView) => {
  const value = parts.value.options[option.name]
  if (option.type === 'bands') return groupToLines(value)
  if (value === undefined) return ''
  return typeof value === 'string' ? value : JSON.stringify(value)
}

/** A text as it is typed; what starts like a list or a group is one. */
function typed(option: OptionView, text: string): Tree {
  if (option.type === 'bands') return linesToGroup(text)
  if (/^\s*[[{]/.test(text)) {
    try {
      return JSON.parse(text) as Tree
    } catch {
      return text
    }
  }
  return text
}

const listOf = (option: OptionView) =>
  option.type === 'table'
    ? props.language.tables
    : option.type === 'calendar'
      ? props.language.calendars
      : option.words

const operand = computed(() => {
  const value = parts.value.options[operator.value]
  return typeof value === 'string' ? value : value === undefined ? '' : JSON.stringify(value)
})
const isChoice = (option: OptionView) => ['words', 'table', 'calendar'].includes(option.type)
const value = (event: Event) => (event.target as HTMLInputElement).value
const checked = (event: Event) => ((event.target as HTMLInputElement).checked ? 'true' : '')
</script>

<template>
  <div v-if="kind" class="options">
    <p class="mid">{{ kind.summary.replaceAll('`', '') }}</p>
    <template v-if="kind.testing">
      <label
        ><span>if it</span>
        <select class="in" :value="operator" @change="setOperator(value($event))">
          <option v-for="key in language.operators" :key="key" :value="key">
            {{ key.replaceAll('-', ' ') }}
          </option>
        </select></label
      >
      <label
        ><span>what</span>
        <input
          class="in"
          :value="operand"
          @input="set(operator, typed({ type: 'operand' } as OptionView, value($event)))"
      /></label>
    </template>
    <label v-for="option in kind.options" :key="option.name">
      <span>{{ option.name.replaceAll('-', ' ') }}</span>
      <span v-if="isChoice(option)">
        <select class="in" :value="shown(option)" @change="set(option.name, value($event))">
          <option v-if="!option.required || !shown(option)" value=""></option>
          <option v-for="word in listOf(option)" :key="word" :value="word">{{ word }}</option>
        </select>
        <button
          v-if="option.type === 'table' && shown(option)"
          type="button"
          class="btn bare"
          @click="emit('table', shown(option))"
        >
          Edit its rows
        </button>
      </span>
      <input
        v-else-if="option.type === 'flag'"
        type="checkbox"
        :checked="shown(option) === 'true'"
        @change="set(option.name, checked($event))"
      />
      <textarea
        v-else-if="option.type === 'bands'"
        class="in mono"
        rows="4"
        :value="shown(option)"
        @change="set(option.name, typed(option, value($event)))"
      ></textarea>
      <input
        v-else
        class="in mono"
        :value="shown(option)"
        :required="option.required"
        @input="set(option.name, typed(option, value($event)))"
      />
      <small class="dim">{{ option.about.replaceAll('`', '') }}</small>
    </label>
    <p v-if="isGroup(step) && !kind.options.length && !kind.testing" class="dim">No options.</p>
  </div>
</template>

<style scoped>
.options {
  display: grid;
  gap: 6px;
  padding: 6px 0 8px;
}
label {
  display: grid;
  grid-template-columns: 96px minmax(0, 220px) minmax(0, 1fr);
  gap: 10px;
  align-items: center;
}
label > span {
  text-align: right;
  color: var(--ink-2);
}
label > input[type='checkbox'] {
  justify-self: start;
  accent-color: var(--kelp);
}
small {
  font-size: 12px;
}
</style>
