<script setup lang="ts">
import { computed } from 'vue'
import { everyText } from '@/shared/format/time'
import type { PlaceView } from './api'
import { isGroup, withKey, type Group, type Tree } from './tree'

/** How often the source is asked what changed, where it is asked at all. */
const props = defineProps<{ from: Tree | undefined; place: PlaceView }>()
const emit = defineEmits<{ change: [from: Tree] }>()

const SPANS: Record<string, string> = {
  PT30S: '30 seconds',
  PT1M: 'minute',
  PT5M: '5 minutes',
  PT15M: '15 minutes',
  PT1H: 'hour',
}
const start = computed<Group>(() => (isGroup(props.from) ? props.from : {}))
const every = computed(() => String(start.value.every ?? ''))

const set = (span: string) => emit('change', withKey(props.from, 'every', span || undefined))
</script>

<template>
  <p class="saying">
    <span class="mid">{{ place.systemName }} is asked what changed, every</span>
    <select
      class="in"
      aria-label="How often it is asked"
      :value="every"
      @change="set(($event.target as HTMLSelectElement).value)"
    >
      <option value="">{{ everyText(place.everySeconds) }}, as its description says</option>
      <option v-if="every && !(every in SPANS)" :value="every">{{ every }}</option>
      <option v-for="(words, span) in SPANS" :key="span" :value="span">{{ words }}</option>
    </select>
  </p>
</template>
