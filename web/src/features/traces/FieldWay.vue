<script setup lang="ts">
import { computed } from 'vue'
import { named, type FieldWay } from './api'

/** One value from its source over each step to what the target keeps. */
const props = defineProps<{
  way: FieldWay
  /** The name of the system that the field goes to; empty where it stands elsewhere. */
  target: string
  warnings: { message: string }[]
}>()

interface Stop {
  words: string
  where?: string
  value: string
  same?: boolean
  problem?: boolean
  test?: string
}

const quote = (text: string, type: string) => (type === 'text' ? `"${text}"` : text)

/** A text made of several fields, or of one with words around it, is a stop of its own. */
const start = computed<Stop[]>(() => {
  const { sources, start } = props.way
  if (sources.length === 0)
    return [{ words: 'always the same', value: named(props.way, start.text) }]
  const itself = sources.length === 1 && sources[0]?.value.text === start.text
  return itself ? [] : [{ words: 'put together', value: start.text }]
})

const steps = computed<Stop[]>(() => {
  let before = props.way.start.text
  return props.way.steps.map((step) => {
    const same = step.value.text === before && !step.value.problem
    before = step.value.text
    return {
      words: step.sentence,
      value: step.value.problem || step.value.text,
      same,
      problem: step.value.problem !== '',
    }
  })
})

const end = computed<Stop[]>(() => {
  const { result, stored } = props.way
  const told = props.way.steps.some((step) => step.value.problem)
  if (result.problem) {
    return told ? [] : [{ words: 'not delivered', value: result.problem, problem: true }]
  }
  if (!stored) return []
  return [
    {
      words: props.target ? `stored by ${props.target}` : 'stored there',
      value: named(props.way, stored),
      test: 'stored',
    },
  ]
})

const stops = computed<Stop[]>(() => [
  ...props.way.sources.map((source) => ({
    words: source.name,
    where: source.where,
    value:
      source.value.type === 'nothing' ? 'nothing' : quote(source.value.text, source.value.type),
  })),
  ...start.value,
  ...steps.value,
  ...end.value,
])

const isLong = (stop: Stop) => !stop.same && stop.value.length > 34
</script>

<template>
  <ol class="way" :aria-label="`The way of ${way.name}`">
    <li v-for="(stop, i) in stops" :key="i" :class="{ long: isLong(stop) }" :data-test="stop.test">
      <span v-if="stop.where">
        <b>{{ stop.words }}</b> <span class="mid">in the {{ stop.where }}</span>
      </span>
      <span v-else>{{ stop.words }}</span>
      {{ ' ' }}
      <span v-if="stop.problem" class="bad">{{ stop.value }}</span>
      <span v-else-if="stop.same" class="mid">no change</span>
      <span v-else class="mono value">{{ stop.value }}</span>
    </li>
    <li v-for="warning in warnings" :key="warning.message" class="odd">
      <span>to look at</span>
      <span>{{ warning.message }}</span>
    </li>
  </ol>
</template>

<style scoped>
.way {
  list-style: none;
  background: var(--panel);
  border: 1px solid var(--tide-line);
  border-radius: 6px;
  padding: 8px 14px;
  margin: 10px 0 14px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  padding: 4px 0;
  border-bottom: 1px dashed var(--line);
}
li.long {
  grid-template-columns: minmax(0, 1fr);
  gap: 0;
}
li:last-child {
  border: 0;
}
li > :last-child {
  text-align: right;
  overflow-wrap: anywhere;
  white-space: pre-line;
}
li.long > :last-child {
  text-align: left;
}
.value {
  color: var(--kelp);
}
.bad {
  color: var(--failed);
}
.odd {
  background: var(--held-2);
}
</style>
