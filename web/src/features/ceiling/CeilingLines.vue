<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/shared/http/client'
import { inSpan, inTheLast, manyOf, origin, others, telling } from './words'

/** The most that a bridge may do, how much of it is used, and where each number comes from. */
const props = defineProps<{ ceiling: Schemas['CeilingView']; now: Date; zone: string }>()

const limits = computed(() => telling(props.ceiling.limits))
const rest = computed(() => others(props.ceiling.limits))
</script>

<template>
  <ul class="limits">
    <li v-for="limit in limits" :key="limit.kind">
      {{ manyOf(limit.most, limit.kind) }} {{ inSpan(ceiling.perSeconds) }}
      <span class="mid used" :class="{ bad: limit.times >= limit.most }"
        >{{ limit.times }} {{ inTheLast(ceiling.perSeconds) }}</span
      >
      <small v-if="limit.busiest !== null" class="mid">{{
        origin(limit, ceiling.perSeconds, now, zone)
      }}</small>
    </li>
    <li v-if="rest" class="mid">
      {{ rest }} {{ inSpan(ceiling.perSeconds) }}, reckoned without a past
    </li>
  </ul>
</template>

<style scoped>
.limits {
  margin: 0;
  padding: 0;
  list-style: none;
}
.limits li {
  padding: 2px 0;
}
.used {
  margin-left: 8px;
}
.limits small {
  display: block;
}
</style>
