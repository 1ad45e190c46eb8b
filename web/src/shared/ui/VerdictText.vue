<script setup lang="ts">
import VerdictMark from './VerdictMark.vue'
import { VERDICT_WORDS, type Verdict } from '@/shared/format/words'

defineProps<{ verdict: Verdict }>()
</script>

<template>
  <span class="verdict" :class="verdict.toLowerCase()">
    <VerdictMark :kind="verdict" />{{ VERDICT_WORDS[verdict] }}<slot />
  </span>
</template>

<style scoped>
.verdict {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  white-space: nowrap;
}
.failed {
  color: var(--failed);
}
</style>
