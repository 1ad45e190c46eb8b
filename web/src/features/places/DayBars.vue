<script setup lang="ts">
import { computed } from 'vue'

/** How many came in each half hour of a day, as bars; in words for whoever does not see them. */
const props = defineProps<{ counts: number[] }>()

const HEIGHT = 18
const STEP = 3
const LEAST_TOP = 4
const sum = computed(() => props.counts.reduce((one, other) => one + other, 0))
const bars = computed(() => {
  const unit = (HEIGHT - 2) / Math.max(LEAST_TOP, ...props.counts)
  return props.counts
    .map((count, i) => ({ x: i * STEP, height: count ? Math.max(1.5, count * unit) : 0 }))
    .filter((bar) => bar.height > 0)
})
</script>

<template>
  <span class="bars">
    <svg :width="counts.length * STEP" :height="HEIGHT" aria-hidden="true">
      <line x1="0" :x2="counts.length * STEP" :y1="HEIGHT - 0.5" :y2="HEIGHT - 0.5" />
      <rect
        v-for="bar in bars"
        :key="bar.x"
        :x="bar.x"
        :y="HEIGHT - bar.height"
        width="2"
        :height="bar.height"
      />
    </svg>
    <span class="sum">{{ sum || '–' }}</span>
  </span>
</template>

<style scoped>
.bars {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
line {
  stroke: var(--line);
}
rect {
  fill: var(--bar-made);
}
.sum {
  min-width: 24px;
}
</style>
