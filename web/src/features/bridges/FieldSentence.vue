<script setup lang="ts">
import type { FieldView } from './api'

/** A field rule as a sentence: where it starts, then step after step. */
defineProps<{ field: FieldView }>()
</script>

<template>
  <div class="rule">
    <span class="name">{{ field.name }}</span>
    <p>
      <template v-for="(piece, i) in field.source" :key="i">
        <b v-if="piece.kind === 'field'" class="noun" :title="piece.address">{{ piece.text }}</b>
        <span v-else-if="piece.kind === 'fixed'" class="mono fixed">{{ piece.text }}</span>
        <span v-else class="words">{{ piece.text }}</span>
      </template>
      <template v-for="(step, i) in field.steps" :key="`s${i}`"
        ><span class="step">, {{ step }}</span></template
      >
    </p>
  </div>
</template>

<style scoped>
.rule {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 16px;
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
}
.name {
  text-align: right;
  color: var(--ink-2);
}
p {
  white-space: pre-wrap;
}
.noun {
  font-weight: 650;
  border-bottom: 1px solid var(--clay);
}
.fixed {
  color: var(--kelp);
}
.words {
  color: var(--ink-2);
}
</style>
