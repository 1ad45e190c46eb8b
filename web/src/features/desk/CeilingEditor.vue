<script setup lang="ts">
import { computed } from 'vue'
import { isGroup, type Tree } from './tree'

/** The most that the bridge may do in a span of time; what is not stated is reckoned. */
const props = defineProps<{ ceiling: Tree | undefined }>()
const emit = defineEmits<{ change: [ceiling: Tree | undefined] }>()

const KINDS: Record<string, string> = {
  creates: 'new tasks',
  changes: 'changes',
  messages: 'messages',
}
/** What it may do about its own doing, with what is usual. */
const TURNS = {
  again: { before: 'It may act on what came of its own doing', usual: '0', after: 'times,' },
  chain: { before: 'at the end of at most', usual: '8', after: 'bridges in a row,' },
  'same-task': { before: 'and write to one task', usual: '60', after: 'times in that span.' },
} as const
const SPANS: Record<string, string> = { PT10M: '10 minutes', PT1H: 'an hour', PT24H: 'a day' }
const stated = computed(() => (isGroup(props.ceiling) ? props.ceiling : {}))
const most = (kind: string) => String(stated.value[kind] ?? '')
const per = computed(() => String(stated.value.per ?? 'PT1H'))
const value = (event: Event) => (event.target as HTMLInputElement).value.trim()

function change(key: string, text: string) {
  const all = { ...stated.value, per: per.value, [key]: text }
  const kept = Object.fromEntries(Object.entries(all).filter(([, one]) => one !== ''))
  emit('change', Object.keys(kept).length > 1 ? kept : undefined)
}
</script>

<template>
  <p class="ceiling">
    <span class="mid">At most</span>
    <label v-for="(words, kind) in KINDS" :key="kind">
      <input
        class="in count"
        inputmode="numeric"
        placeholder="reckoned"
        :aria-label="`How many ${words}`"
        :value="most(kind)"
        @input="change(kind, value($event))"
      />
      {{ words }}
    </label>
    <span class="mid">in</span>
    <select
      class="in"
      aria-label="In which span"
      :value="per"
      @change="change('per', value($event))"
    >
      <option v-if="!(per in SPANS)" :value="per">{{ per }}</option>
      <option v-for="(words, span) in SPANS" :key="span" :value="span">{{ words }}</option>
    </select>
  </p>
  <p class="ceiling">
    <label v-for="(turn, key) in TURNS" :key="key">
      <span class="mid">{{ turn.before }}</span>
      <input
        class="in few"
        inputmode="numeric"
        :placeholder="turn.usual"
        :aria-label="`${turn.before}, how often or how many`"
        :value="most(key)"
        @input="change(key, value($event))"
      />
      <span class="mid">{{ turn.after }}</span>
    </label>
  </p>
  <p class="dim hint">
    Before more would come of it, the bridge holds itself and keeps what arrives. What is left empty
    in the first line is three times its busiest time, and at least 60.
  </p>
</template>

<style scoped>
.ceiling {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 6px 4px 2px;
}
.count {
  width: 84px;
  text-align: right;
}
.ceiling label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.few {
  width: 48px;
  text-align: right;
}
.hint {
  margin: 0;
  padding: 0 4px 6px;
}
</style>
