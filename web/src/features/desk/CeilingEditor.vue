<script setup lang="ts">
import { computed } from 'vue'
import { isGroup, type Tree } from './tree'

/** The most that the bridge may make in a span of time. */
const props = defineProps<{ ceiling: Tree | undefined }>()
const emit = defineEmits<{ change: [ceiling: Tree] }>()

const SPANS: Record<string, string> = { PT10M: '10 minutes', PT1H: 'an hour', PT24H: 'a day' }
const creates = computed(() => (isGroup(props.ceiling) ? String(props.ceiling.creates ?? '') : ''))
const per = computed(() => (isGroup(props.ceiling) ? String(props.ceiling.per ?? '') : ''))
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <p class="ceiling">
    <span class="mid">At most</span>
    <input
      class="in count"
      inputmode="numeric"
      aria-label="How many new tasks"
      :value="creates"
      @input="emit('change', { creates: value($event), per })"
    />
    <span class="mid">new tasks in</span>
    <select
      class="in"
      aria-label="In which span"
      :value="per"
      @change="emit('change', { creates, per: value($event) })"
    >
      <option v-if="per && !(per in SPANS)" :value="per">{{ per }}</option>
      <option v-for="(words, span) in SPANS" :key="span" :value="span">{{ words }}</option>
    </select>
    <span class="dim">stated, not yet enforced</span>
  </p>
</template>

<style scoped>
.ceiling {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 6px 4px;
}
.count {
  width: 72px;
  text-align: right;
}
</style>
