<script setup lang="ts">
import { about } from '@/shared/format/time'
import type { Recall } from './api'
import { came, far, ofWhom } from './words'

/** What is being taken back just now, or was stopped by itself. */
defineProps<{ recalls: Recall[] }>()
</script>

<template>
  <section v-if="recalls.length" aria-labelledby="recalls">
    <h2 id="recalls">Being taken back</h2>
    <ul>
      <li v-for="one in recalls" :key="one.id">
        <RouterLink :to="{ name: 'recall', params: { id: one.id } }"
          >What was made by {{ ofWhom(one) }}</RouterLink
        >
        <span
          >{{ came(one.counts)
          }}<template v-if="one.slowest && one.state === 'RUNNING'"
            >; {{ about(one.seconds) }} left</template
          ></span
        >
        <small v-if="one.problem" class="bad">It broke off: {{ one.problem }}</small>
        <progress
          v-if="one.state === 'RUNNING'"
          :value="far(one.counts).done"
          :max="far(one.counts).all"
          :aria-label="`How far it is: ${far(one.counts).done} of ${far(one.counts).all}`"
        ></progress>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 18px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--line);
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
</style>
