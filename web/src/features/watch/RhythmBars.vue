<script setup lang="ts">
import { computed } from 'vue'
import type { Bar } from './api'

/** A day in half-hour bars, before what is usual: failed at the foot, then created, updated, the rest. */
const props = defineProps<{ bars: Bar[] }>()

const HEIGHT = 28
const STEP = 4
const LEAST_TOP = 4

const unit = computed(() => {
  const totals = props.bars.map((bar) => bar.made + bar.changed + bar.other + bar.failed)
  const usual = props.bars.map((bar) => bar.usualTo ?? 0)
  return (HEIGHT - 4) / Math.max(LEAST_TOP, ...totals, ...usual)
})
/** From how many to how many usually come, as an area; nothing while that is not known. */
const band = computed(() => {
  if (!props.bars.length || props.bars.some((bar) => bar.usualTo == null)) return ''
  const at = (count: number) => HEIGHT - 1 - count * unit.value
  const along = (of: (bar: Bar) => number) =>
    props.bars.flatMap((bar, i) => [
      `${i * STEP} ${at(of(bar))}`,
      `${(i + 1) * STEP} ${at(of(bar))}`,
    ])
  const up = along((bar) => bar.usualTo!)
  const down = along((bar) => bar.usualFrom ?? 0).reverse()
  return `M${[...up, ...down].join('L')}Z`
})
const drawn = computed(() => {
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
        const height = Math.max(1.5, count * unit.value)
        y -= height
        return { x: i * STEP + 0.5, y, height, fill }
      })
  })
})
</script>

<template>
  <svg :width="bars.length * STEP" :height="HEIGHT" aria-hidden="true">
    <path v-if="band" :d="band" class="usual" />
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
.usual {
  fill: color-mix(in srgb, var(--line) 75%, transparent);
}
</style>
