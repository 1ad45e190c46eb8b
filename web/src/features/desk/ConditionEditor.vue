<script setup lang="ts">
import { computed } from 'vue'
import type { ArrivingGroup, LanguageView, TestView } from './api'
import AddBy from './AddBy.vue'
import TakeAlong from './TakeAlong.vue'
import { isGroup, type Group, type Tree } from './tree'

/** When the bridge carries an event: tests that all or any must hold, each editable in place. */
const props = defineProps<{
  when: Tree | undefined
  arriving: ArrivingGroup[]
  results: TestView[]
  language: LanguageView
}>()
const emit = defineEmits<{ change: [when: Tree | undefined] }>()

const ORDERED = ['more-than', 'at-least', 'less-than', 'at-most']

const how = computed(() => (isGroup(props.when) && 'any' in props.when ? 'any' : 'all'))

/** The tests, if the condition is a list of simple ones; null if it is more than that. */
const tests = computed<Group[] | null>(() => {
  const when = props.when
  if (when === undefined) return []
  if (!isGroup(when)) return null
  const list = Array.isArray(when.all) ? when.all : Array.isArray(when.any) ? when.any : [when]
  const simple = list.filter((one): one is Group => isGroup(one) && typeof one.value === 'string')
  return simple.length === list.length ? simple : null
})

const fields = computed(() => props.arriving.flatMap((group) => group.fields))
const choices = computed(() =>
  fields.value.map((field) => ({
    key: field.address,
    words: field.name,
    hint: field.value ? `= ${field.value}` : field.type,
  })),
)
/** A test of what was there before, beside those of what is there now. */
const CHANGED = 'changed'
const operators = computed(() => [
  ...props.language.operators.filter((key) => key !== 'not'),
  CHANGED,
])
const operatorOf = (test: Group) => operators.value.find((key) => key in test) ?? 'is'
const operandOf = (test: Group) => {
  const operand = test[operatorOf(test)]
  if (operatorOf(test) === CHANGED) return changedOf(operand)
  return typeof operand === 'string' ? operand : JSON.stringify(operand ?? '')
}
/** To what it changed: nothing for any change; what is more than that as it is written. */
function changedOf(how: Tree | undefined): string {
  if (!isGroup(how)) return ''
  return Object.keys(how).join() === 'to' && typeof how.to === 'string'
    ? how.to
    : JSON.stringify(how)
}
function changedTo(text: string): Tree {
  const read = operand(text)
  if (isGroup(read)) return read
  return text.trim() ? { to: read } : 'true'
}

const resultOf = (place: number) => props.results[place]
const stepNames = (test: Group) =>
  (Array.isArray(test.steps) ? test.steps : []).map((step) =>
    typeof step === 'string' ? step : (Object.keys(step)[0] ?? ''),
  )

function set(list: Group[], mode = how.value) {
  emit('change', list.length ? { [mode]: list } : undefined)
}

function change(place: number, test: Group) {
  set((tests.value ?? []).map((old, i) => (i === place ? test : old)))
}

/** A text is compared as a number only after it was read as one, so the step comes by itself. */
function withOperator(test: Group, operator: string): Group {
  const isText = fields.value.find((field) => field.address === test.value)?.type === 'text'
  const next: Group = { value: test.value ?? '' }
  const kept = Array.isArray(test.steps) ? test.steps.filter((step) => step !== 'read-number') : []
  const steps = isText && ORDERED.includes(operator) ? [...kept, 'read-number'] : kept
  if (steps.length && operator !== CHANGED) next.steps = steps
  const operand = ['is', CHANGED].includes(operatorOf(test)) ? '' : (test[operatorOf(test)] ?? '')
  next[operator] =
    operator === 'is' ? 'present' : operator === CHANGED ? changedTo(String(operand)) : operand
  return next
}

const operand = (text: string): Tree => {
  if (!/^\s*[[{]/.test(text)) return text
  try {
    return JSON.parse(text) as Tree
  } catch {
    return text
  }
}
const value = (event: Event) => (event.target as HTMLInputElement).value
const words = (key: string) => key.replaceAll('-', ' ')
</script>

<template>
  <div class="when">
    <p v-if="tests === null" class="mid">
      The condition has parts within parts; it is edited in the document below.
      <TakeAlong v-if="when !== undefined" kind="condition" name="as a whole" :tree="when" />
    </p>
    <template v-else>
      <div v-for="(test, i) in tests" :key="i" class="test">
        <span class="mid">{{ i === 0 ? 'Only when' : how === 'all' ? 'and' : 'or' }}</span>
        <select
          class="in"
          aria-label="What is tested"
          :value="test.value"
          @change="change(i, { ...test, value: value($event) })"
        >
          <option v-for="field in fields" :key="field.address" :value="field.address">
            {{ field.name }}
          </option>
        </select>
        <span v-if="stepNames(test).length" class="dim">{{
          stepNames(test).map(words).join(', ')
        }}</span>
        <select
          class="in"
          aria-label="How it is tested"
          :value="operatorOf(test)"
          @change="change(i, withOperator(test, value($event)))"
        >
          <option v-for="key in operators" :key="key" :value="key">
            {{ key === CHANGED ? 'changed to' : words(key) }}
          </option>
        </select>
        <select
          v-if="operatorOf(test) === 'is'"
          class="in"
          aria-label="With what"
          :value="operandOf(test)"
          @change="change(i, { ...test, is: value($event) })"
        >
          <option value="present">given</option>
          <option value="empty">empty</option>
        </select>
        <input
          v-else-if="operatorOf(test) === CHANGED"
          class="in with"
          aria-label="To what"
          placeholder="to anything"
          :value="operandOf(test)"
          @change="change(i, { ...test, [CHANGED]: changedTo(value($event)) })"
        />
        <input
          v-else
          class="in with"
          aria-label="With what"
          :value="operandOf(test)"
          @input="change(i, { ...test, [operatorOf(test)]: operand(value($event)) })"
        />
        <span class="said">
          <template v-if="resultOf(i)">
            <span :class="resultOf(i)!.met ? 'met' : 'unmet'" :title="resultOf(i)!.sentence">{{
              resultOf(i)!.met ? 'met' : `not met by “${resultOf(i)!.value}”`
            }}</span>
            <span
              class="dim"
              :title="`${resultOf(i)!.passed} of ${resultOf(i)!.asked} events meet it`"
              >{{ resultOf(i)!.passed }} of {{ resultOf(i)!.asked }} events</span
            >
          </template>
          <TakeAlong
            kind="condition"
            :name="fields.find((one) => one.address === test.value)?.name ?? String(test.value)"
            :tree="test"
          />
          <button class="btn bare" @click="set(tests.filter((_, k) => k !== i))">Remove</button>
        </span>
      </div>
      <div class="foot">
        <AddBy
          label="Add a test"
          down
          :choices="choices"
          @add="(address) => set([...(tests ?? []), { value: address, is: 'present' }])"
        />
        <label v-if="tests.length > 1"
          ><select
            class="in"
            aria-label="How many must hold"
            :value="how"
            @change="set(tests, value($event) as 'all' | 'any')"
          >
            <option value="all">all must hold</option>
            <option value="any">one must hold</option>
          </select></label
        >
        <span v-if="!tests.length" class="mid">Every event is carried.</span>
        <TakeAlong
          v-if="when !== undefined && tests.length > 1"
          kind="condition"
          name="as a whole"
          :tree="when"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.when {
  padding: 0 4px 10px;
  border-bottom: 1px solid var(--line);
}
.test,
.foot {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  padding: 2px 0;
}
.test > .mid {
  min-width: 66px;
  text-align: right;
}
.test .in {
  field-sizing: content;
}
.with {
  min-width: 60px;
  max-width: 220px;
}
.said {
  margin-left: auto;
  display: flex;
  gap: 8px;
  align-items: center;
}
.foot {
  padding-left: 74px;
}
.met {
  color: var(--kelp);
  font-weight: 600;
}
.unmet {
  color: var(--held);
  font-weight: 600;
}
</style>
