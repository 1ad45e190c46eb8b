<script setup lang="ts">
import { computed } from 'vue'
import type { Bar } from './api'

/** A day in half-hour bars: failed at the foot, then created, updated, the rest. */
const props = defineProps<{ bars: Bar[] }>()

const HEIGHT = 28
const STEP = 4
const LEAST_TOP = 4

const drawn = computed(() => {
  const totals = props.bars.map((bar) => bar.made + bar.changed + bar.other + bar.failed)
  const top = Math.max(LEAST_TOP, ...totals)
  const unit = (HEIGHT - 4) / top
  return props.bars.flatMap((bar, i) => {
    let y = HEIGHT - 1
    const kinds = [
      [bar.failed, 'var(--failed)'],
      [bar.made, 'var(--bar-made)'],
      [bar.changed, 'var(--changed)'],
      [bar.other, 'var(--line-2)'],
    ] as const
    return kinds
      .filter(([count]) => count > 0)
      .map(([count, fill]) => {
        const height = Math.max(1.5, count * unit)
        y -= height
        return { x: i * STEP + 0.5, y, height, fill }
      })
  })
})
</script>

<template>
  <svg :width="bars.length * STEP" :height="HEIGHT" aria-hidden="true">
    <rect
      v-for="(bar, i) in drawn"
      :key="i"
      :x="bar.x"
      :y="bar.y"
      width="3"
      :height="bar.height"
      :fill="bar.fill"
    />
    <path :d="`M0 ${HEIGHT - 0.5}H${bars.length * STEP}`" stroke="var(--line-2)" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
</style>
