<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Tree } from '@/shared/tree'
import { cellOf, fixedOf, type Cell } from './cells'

/** One part of when rows come round: a cell of the row says it, or it is the same for all. */
const props = defineProps<{
  label: string
  part: Tree | undefined
  cells: Cell[]
  /** What it is called where nothing says it; empty if something must. */
  absent: string
  /** How it is typed where it is the same for all; empty if a cell must say it. */
  typed: '' | 'time' | 'text' | 'zone'
}>()
const emit = defineEmits<{ change: [part: Tree | undefined] }>()

const SAME = 'same'
const zones = Intl.supportedValuesOf('timeZone')
const same = ref(fixedOf(props.part) !== '')
watch(
  () => props.part,
  (part) => (same.value = fixedOf(part) !== '' || (same.value && !cellOf(part))),
)
const chosen = computed(() => (same.value ? SAME : cellOf(props.part)))
const value = (event: Event) => (event.target as HTMLInputElement).value

function choose(event: Event) {
  const next = value(event)
  same.value = next === SAME
  if (!same.value) emit('change', next || undefined)
  else if (props.typed === 'zone') emit('change', 'Europe/Lisbon')
}
</script>

<template>
  <label class="part">
    <span class="mid">{{ label }}</span>
    <select class="in" :aria-label="label" :value="chosen" @change="choose">
      <option v-if="absent" value="">{{ absent }}</option>
      <option v-else-if="!chosen" value="">choose a cell</option>
      <option v-if="typed" :value="SAME">the same for all</option>
      <option v-for="cell in cells" :key="cell.address" :value="cell.address">
        as “{{ cell.name }}” says
      </option>
    </select>
    <select
      v-if="same && typed === 'zone'"
      class="in"
      :aria-label="`${label}: for all`"
      :value="fixedOf(part)"
      @change="emit('change', value($event))"
    >
      <option v-for="zone in zones" :key="zone" :value="zone">{{ zone }}</option>
    </select>
    <input
      v-else-if="same"
      class="in few"
      :type="typed === 'time' ? 'time' : 'text'"
      :aria-label="`${label}: for all`"
      :value="fixedOf(part)"
      @change="emit('change', value($event) || undefined)"
    />
  </label>
</template>

<style scoped>
.part {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
}
.few {
  width: 130px;
}
</style>
