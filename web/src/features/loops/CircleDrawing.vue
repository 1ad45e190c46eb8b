<script setup lang="ts">
import { computed } from 'vue'
import type { Circle } from './api'

/** A circle as a drawing: its places in a row, and the way back below. The list beside it says it in words. */
const props = defineProps<{ circle: Circle }>()
const WIDE = 148
const HIGH = 44
const GAP = 64
const BACK = 34

/** `North yard of Grounds Board` in two lines. */
function lines(place: string): [string, string] {
  const at = place.lastIndexOf(' of ')
  return at < 0 ? [place, ''] : [place.slice(0, at), place.slice(at + 4)]
}
const places = computed(() => {
  const all = [props.circle.from, ...props.circle.turns.map((turn) => turn.to)].slice(0, -1)
  return all.map((place, i) => ({ place, lines: lines(place), x: i * (WIDE + GAP) }))
})
const arrows = computed(() =>
  places.value.slice(1).map((place, i) => ({ n: i + 1, from: place.x - GAP, to: place.x })),
)
const width = computed(() => places.value.length * (WIDE + GAP) - GAP)
const last = computed(() => width.value - WIDE / 2)
</script>

<template>
  <svg
    :viewBox="`-4 -4 ${width + 8} ${HIGH + BACK + 12}`"
    :style="{ width: `${width + 8}px` }"
    aria-hidden="true"
  >
    <g v-for="place in places" :key="place.x">
      <rect :x="place.x" y="0" :width="WIDE" :height="HIGH" rx="4" class="place" />
      <text :x="place.x + WIDE / 2" :y="place.lines[1] ? 18 : 27" class="name">
        {{ place.lines[0] }}
      </text>
      <text :x="place.x + WIDE / 2" y="34" class="system">{{ place.lines[1] }}</text>
    </g>
    <g v-for="arrow in arrows" :key="arrow.n" class="way">
      <path :d="`M${arrow.from + 3} ${HIGH / 2} H${arrow.to - 9}`" />
      <path :d="`M${arrow.to - 10} ${HIGH / 2 - 5} l8 5 l-8 5 z`" class="head" />
      <text :x="(arrow.from + arrow.to) / 2 - 3" :y="HIGH / 2 - 7">{{ arrow.n }}</text>
    </g>
    <g class="way">
      <path
        :d="`M${last} ${HIGH + 3} V${HIGH + BACK - 8} H${places.length === 1 ? WIDE / 2 - 40 : WIDE / 2} V${HIGH + 12}`"
      />
      <path
        :d="`M${(places.length === 1 ? WIDE / 2 - 40 : WIDE / 2) - 5} ${HIGH + 12} l5 -8 l5 8 z`"
        class="head"
      />
      <text :x="(last + WIDE / 2) / 2 - (places.length === 1 ? 20 : 0)" :y="HIGH + BACK - 13">
        {{ circle.turns.length }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
  margin: 8px 0 4px;
}
.place {
  fill: var(--panel);
  stroke: var(--line-2);
}
text {
  text-anchor: middle;
  font-size: 13px;
  fill: var(--ink);
}
.system {
  font-size: 12px;
  fill: var(--ink-2);
}
.name {
  font-weight: 650;
}
.way path {
  fill: none;
  stroke: var(--clay);
  stroke-width: 1.5;
}
.way .head {
  fill: var(--clay);
  stroke: none;
}
.way text {
  font-size: 12px;
  font-weight: 650;
}
</style>
