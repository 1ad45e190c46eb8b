<script setup lang="ts">
import { computed } from 'vue'
import type { ArrivingGroup, LeavingField } from './api'
import { ruleGroup, sourceKind, withSource, type SourceKind, type Tree } from './tree'

/** Where a field's value starts: a field, a text with fields, or a value that is always the same. */
const props = defineProps<{ field: LeavingField; rule: Tree; arriving: ArrivingGroup[] }>()
const emit = defineEmits<{ change: [rule: Tree]; pick: [take: (address: string) => void] }>()

const KINDS: { kind: SourceKind; words: string }[] = [
  { kind: 'value', words: 'is a field' },
  { kind: 'text', words: 'is a text with fields' },
  { kind: 'texts', words: 'is several texts, one a line' },
  { kind: 'always', words: 'is always' },
]

const kind = computed<SourceKind>(() => sourceKind(props.rule))
const source = computed(() => ruleGroup(props.rule)[kind.value])
const several = computed(() => props.field.type.startsWith('list'))
const named = computed(() => Object.keys(props.field.names).length > 0)
const chosen = computed(() => [source.value ?? []].flat().map(String))

const sourceText = computed(() => {
  if (Array.isArray(source.value)) return source.value.join(kind.value === 'texts' ? '\n' : ', ')
  return typeof source.value === 'string' ? source.value : ''
})

/** What is typed as the source of this kind: one value, a list, or a text a line. */
function asSource(text: string, of: SourceKind): Tree {
  if (of === 'texts') return text.split('\n')
  if (of !== 'always' || !several.value) return text
  return text
    .split(',')
    .map((item) => item.trim())
    .filter(Boolean)
}

const set = (of: SourceKind, next: Tree) => emit('change', withSource(props.rule, { [of]: next }))
const setText = (text: string) => set(kind.value, asSource(text, kind.value))
const setKind = (to: SourceKind) => set(to, to === 'value' ? '' : asSource(sourceText.value, to))

function choose(key: string, on: boolean) {
  // In the order the target names them, however they were ticked.
  set(
    'always',
    Object.keys(props.field.names).filter((one) => (one === key ? on : chosen.value.includes(one))),
  )
}

function pick() {
  emit('pick', (address) => {
    if (kind.value === 'value') set('value', address)
    else setText(`${sourceText.value}{${address}}`)
  })
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="source">
    <select
      class="in"
      aria-label="Where it comes from"
      :value="kind"
      @change="setKind(value($event) as SourceKind)"
    >
      <option v-for="one in KINDS" :key="one.kind" :value="one.kind">{{ one.words }}</option>
    </select>
    <select
      v-if="kind === 'value'"
      class="in wide"
      aria-label="The field"
      :value="sourceText"
      @change="setText(value($event))"
    >
      <option v-if="!sourceText" value="">choose a field</option>
      <optgroup v-for="g in arriving" :key="g.title" :label="g.title">
        <option v-for="one in g.fields" :key="one.address" :value="one.address">
          {{ one.name }} = {{ one.value || '–' }}
        </option>
      </optgroup>
    </select>
    <fieldset v-else-if="kind === 'always' && named && several">
      <legend class="unseen">The values</legend>
      <label v-for="(name, key) in field.names" :key="key"
        ><input
          type="checkbox"
          :checked="chosen.includes(String(key))"
          @change="choose(String(key), ($event.target as HTMLInputElement).checked)"
        />
        {{ name }}</label
      >
    </fieldset>
    <select
      v-else-if="kind === 'always' && named"
      class="in wide"
      aria-label="The value"
      :value="sourceText"
      @change="setText(value($event))"
    >
      <option v-for="(name, key) in field.names" :key="key" :value="key">{{ name }}</option>
    </select>
    <textarea
      v-else-if="kind === 'texts'"
      class="in row"
      rows="4"
      aria-label="The texts, one a line; fields stand in braces"
      :value="sourceText"
      @input="setText(value($event))"
    ></textarea>
    <input
      v-else
      class="in"
      :class="kind === 'text' ? 'row' : 'wide'"
      :aria-label="kind === 'text' ? 'The text; fields stand in braces' : 'The value'"
      :value="sourceText"
      @input="setText(value($event))"
    />
    <button v-if="kind !== 'always'" class="btn" @click="pick">Pick from arriving</button>
  </div>
</template>

<style scoped>
.source {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
}
.wide {
  flex: 1;
  min-width: 180px;
}
.row {
  flex: 1 0 100%;
  order: 3;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  flex: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
</style>
