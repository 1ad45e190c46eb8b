<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { playStatuses, type PlayedStep, type StatusGrid } from './api'
import { nameOf } from './statusTable'

/** Changes of a status on either side, in any order, and what both sides become. */
const props = defineProps<{ id: string; text: string; grid: StatusGrid }>()
const { error, during } = useActing()
type Change = { side: 'LEFT' | 'RIGHT'; status: string }
const changes = ref<Change[]>([])
const steps = ref<PlayedStep[]>([])
let newest = 0

/** The first status and what it becomes, on which both sides agree at first. */
const start = computed(() => {
  const left = props.grid.left.statuses[0]?.key ?? ''
  const right = props.grid.left.across[left] ?? props.grid.right.statuses[0]?.key ?? ''
  return { left, right }
})
const sides = computed(() => [
  { side: 'LEFT' as const, of: props.grid.left },
  { side: 'RIGHT' as const, of: props.grid.right },
])
const last = computed(() => steps.value.at(-1))

function stands(side: Change['side'], name: string) {
  const here = side === 'LEFT' ? props.grid.left : props.grid.right
  const first = nameOf(here, side === 'LEFT' ? start.value.left : start.value.right)
  const now = side === 'LEFT' ? last.value?.left : last.value?.right
  return (now ?? first) === name
}

async function play() {
  const mine = ++newest
  await during(async () => {
    const played = changes.value.length
      ? await playStatuses(props.id, props.text, props.grid.field, start.value, changes.value)
      : []
    // An older answer never replaces a newer one.
    if (mine === newest) steps.value = played
  })
}

function set(change: Change) {
  changes.value = [...changes.value, change]
}

watch([changes, () => JSON.stringify(props.grid)], () => void play())
</script>

<template>
  <p v-if="error" class="note bad" role="alert">{{ error }}</p>
  <div v-for="one in sides" :key="one.side" class="side" role="group" :aria-label="one.of.of">
    <span class="mid">{{ one.of.of }}</span>
    <button
      v-for="status in one.of.statuses"
      :key="status.key"
      class="btn"
      :aria-pressed="stands(one.side, status.name)"
      @click="set({ side: one.side, status: status.key })"
    >
      {{ status.name }}
    </button>
  </div>
  <table class="rows" aria-label="What both sides become">
    <thead>
      <tr>
        <th scope="col" class="number">Change</th>
        <th scope="col">{{ grid.left.of }}</th>
        <th scope="col">{{ grid.right.of }}</th>
        <th scope="col">What comes of it</th>
      </tr>
    </thead>
    <tbody aria-live="polite">
      <tr>
        <td class="mid">at first</td>
        <td>{{ nameOf(grid.left, start.left) }}</td>
        <td>{{ nameOf(grid.right, start.right) }}</td>
        <td class="mid">Press a status to set it on its side.</td>
      </tr>
      <tr v-for="(step, i) in steps" :key="i">
        <td>{{ i + 1 }}</td>
        <td :class="{ set: step.side === 'LEFT', wrote: step.wrote === 'LEFT' }">
          {{ step.left }}
          <small v-if="step.side === 'LEFT'" class="mid">set by a person</small>
        </td>
        <td :class="{ set: step.side === 'RIGHT', wrote: step.wrote === 'RIGHT' }">
          {{ step.right }}
          <small v-if="step.side === 'RIGHT'" class="mid">set by a person</small>
        </td>
        <td>{{ step.words }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="changes.length" class="acts">
    <button class="btn" @click="changes = changes.slice(0, -1)">Without the last</button>
    <button class="btn" @click="changes = []">Begin anew</button>
  </p>
</template>

<style scoped>
.side {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-bottom: 8px;
}
.side > span {
  min-width: 120px;
}
.btn[aria-pressed='true'] {
  border-color: var(--kelp);
  background: var(--kelp-2);
}
.number {
  width: 76px;
}
.set {
  font-weight: 700;
}
.set small {
  font-weight: 400;
  margin-left: 4px;
}
.wrote {
  color: var(--kelp);
  font-weight: 700;
}
.acts {
  margin-top: 12px;
  display: flex;
  gap: 8px;
}
</style>
