<script setup lang="ts">
import type { BothWays } from './api'

/** What of a place is made on the other side, and what becomes of that once it is gone here. */
defineProps<{ place: BothWays['left']; to: string }>()
</script>

<template>
  <h3>Made at {{ to }}</h3>
  <p v-if="!place.begins">nothing that begins here</p>
  <p v-else-if="place.conditions.length">only when {{ place.conditions.join('; ') }}</p>
  <p v-else>every one</p>
  <h3>Once it is removed here</h3>
  <p>{{ place.ifGone }}</p>
</template>

<style scoped>
h3 {
  font-size: 13px;
  font-weight: 650;
  color: var(--ink-2);
  margin: 16px 0 2px;
}
</style>
