<script setup lang="ts">
import { computed, ref } from 'vue'
import RuleCard from './RuleCard.vue'
import type { ArrivingGroup, LanguageView, LeavingField, NamedValue } from './api'
import { isGroup, type Group, type Tree } from './tree'

/** Values that the bridge names once and several rules use. */
const props = defineProps<{
  values: Tree | undefined
  found: NamedValue[]
  arriving: ArrivingGroup[]
  language: LanguageView
  problems: { path: string; message: string }[]
}>()
const emit = defineEmits<{
  change: [values: Tree | undefined]
  pick: [take: (address: string) => void]
  table: [id: string]
}>()
const open = ref('')
const fresh = ref('')

const rules = computed<Group>(() => (isGroup(props.values) ? props.values : {}))

/** A named value in the shape of a target field, so that one card edits both. */
function asField(name: string): LeavingField {
  const value = props.found.find((one) => one.name === name)
  const problem = props.problems.find(
    (one) => one.path === `values/${name}` || one.path.startsWith(`values/${name}/`),
  )
  return {
    key: name,
    name,
    type: value?.type ?? 'text',
    required: false,
    ruled: true,
    names: {},
    start: value?.start ?? '',
    steps: value?.steps ?? [],
    value: value?.value ?? '',
    shown: value?.value ?? '',
    problem: problem?.message ?? value?.problem ?? '',
    warnings: [],
  }
}

function set(name: string, rule: Tree) {
  emit('change', { ...rules.value, [name]: rule })
}

function remove(name: string) {
  const rest = Object.fromEntries(Object.entries(rules.value).filter(([key]) => key !== name))
  emit('change', Object.keys(rest).length ? rest : undefined)
}

function add() {
  const name = fresh.value
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
  if (!name || name in rules.value) return
  set(name, { text: '' })
  fresh.value = ''
  open.value = name
}
</script>

<template>
  <div class="values">
    <RuleCard
      v-for="(rule, name) in rules"
      :key="name"
      :field="asField(String(name))"
      :rule="rule"
      :arriving="arriving"
      :language="language"
      :open="open === name"
      @toggle="open = open === name ? '' : String(name)"
      @change="set(String(name), $event)"
      @remove="remove(String(name))"
      @pick="emit('pick', $event)"
      @table="emit('table', $event)"
    />
    <form class="add" @submit.prevent="add">
      <input
        v-model="fresh"
        class="in"
        aria-label="Name a value that several rules use"
        placeholder="Name a value for several rules…"
      />
    </form>
  </div>
</template>

<style scoped>
.add {
  padding: 6px 4px;
}
.add .in {
  width: 260px;
}
</style>
