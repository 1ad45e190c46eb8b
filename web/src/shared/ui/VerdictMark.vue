<script setup lang="ts">
import { computed } from 'vue'

/** Our own marks: one size, one stroke, always with the word beside them. */
type Shape =
  | 'create'
  | 'update'
  | 'unchanged'
  | 'passed'
  | 'failed'
  | 'waiting'
  | 'held'
  | 'twice'
  | 'apart'
  | 'done'

const props = defineProps<{ kind: string }>()

const SHAPES: Record<Shape, { colour: string; path: string }> = {
  create: { colour: 'var(--kelp)', path: 'M8 3v10M3 8h10' },
  update: { colour: 'var(--changed)', path: 'M3 9c2-5 8-5 10-1M13 4v4H9' },
  unchanged: { colour: 'var(--ink-3)', path: 'M3 6h10M3 10h10' },
  passed: { colour: 'var(--ink-3)', path: 'M3.500 8a4.500 4.500 0 1 0 9 0a4.500 4.500 0 1 0-9 0' },
  failed: { colour: 'var(--failed)', path: 'M4 4l8 8M12 4l-8 8' },
  waiting: { colour: 'var(--ink-3)', path: 'M3.500 8h.01M8 8h.01M12.500 8h.01' },
  held: { colour: 'var(--held)', path: 'M6 3.500v9M10 3.500v9' },
  twice: {
    colour: 'var(--held)',
    path: 'M3 6c2-3 4-2 5-.500s3 2.500 5-.500M3 11c2-3 4-2 5-.500s3 2.500 5-.500',
  },
  apart: { colour: 'var(--held)', path: 'M6 4l-3.500 4l3.500 4M10 4l3.500 4l-3.500 4' },
  done: { colour: 'var(--kelp)', path: 'M3.500 8.500l3 3 6-7' },
}

const KINDS: Record<string, Shape> = {
  CREATE: 'create',
  UPDATE: 'update',
  UNCHANGED: 'unchanged',
  PASSED_BY: 'passed',
  FAILED: 'failed',
  WAITING: 'waiting',
  HELD: 'held',
  DUPLICATE: 'twice',
  DISAGREE: 'apart',
  DONE: 'done',
}

const shape = computed(() => SHAPES[KINDS[props.kind.toUpperCase().replaceAll(' ', '_')] ?? 'done'])
</script>

<template>
  <svg
    class="mark"
    width="16"
    height="16"
    viewBox="0 0 16 16"
    fill="none"
    :stroke="shape.colour"
    :stroke-width="kind === 'WAITING' ? 2.6 : 1.8"
    stroke-linecap="round"
    stroke-linejoin="round"
    aria-hidden="true"
  >
    <path :d="shape.path" />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
  vertical-align: -3px;
}
</style>
