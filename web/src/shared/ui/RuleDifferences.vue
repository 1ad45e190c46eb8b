<script setup lang="ts">
import type { Schemas } from '@/shared/http/client'

/** Rules that differ between two versions, each as it was and as it is. */
defineProps<{ differences: Schemas['RuleDifference'][] }>()
</script>

<template>
  <dl class="differences">
    <template v-for="one in differences" :key="one.part">
      <dt>{{ one.part }}</dt>
      <dd>
        <p v-if="one.before" class="was"><span class="unseen">before: </span>{{ one.before }}</p>
        <p v-else class="mid">was not there</p>
        <p v-if="one.after"><span class="unseen">now: </span>{{ one.after }}</p>
        <p v-else class="mid">is not there any more</p>
      </dd>
    </template>
  </dl>
</template>

<style scoped>
.differences {
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr);
  gap: 6px 12px;
  margin: 6px 0;
}
dt {
  text-align: right;
  color: var(--ink-2);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.was {
  color: var(--ink-2);
  text-decoration: line-through;
  text-decoration-color: var(--ink-3);
}
</style>
