<script setup lang="ts">
import { computed } from 'vue'
import type { Group } from '@/shared/tree'

/** Which of the times that were missed are made up for. */
const props = defineProps<{ from: Group }>()
const emit = defineEmits<{ change: [from: Group] }>()

const WORDS = { each: 'each is made up for', latest: 'the latest alone is', none: 'none is' }
const catchUp = computed(() => String(props.from['catch-up'] ?? 'each'))
const set = (event: Event) =>
  emit('change', { ...props.from, 'catch-up': (event.target as HTMLSelectElement).value })
</script>

<template>
  <label
    ><span class="mid">If times were missed,</span>
    <select class="in" aria-label="If times were missed" :value="catchUp" @change="set">
      <option v-for="(meaning, word) in WORDS" :key="word" :value="word">
        {{ meaning }}
      </option>
    </select></label
  >
</template>
