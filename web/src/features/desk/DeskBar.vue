<script setup lang="ts">
import type { DraftState } from './useDraft'

/** The name of the bridge, how its draft stands, and what can be done with the whole of it. */
defineProps<{
  name: string
  liveVersion: number | null
  state: DraftState
  changed: boolean
  canUndo: boolean
  canRedo: boolean
  proof: boolean
  ready: boolean
}>()
const emit = defineEmits<{
  theirs: []
  copy: []
  undo: []
  redo: []
  proof: []
  giveUp: []
  live: []
}>()

const STATES: Record<DraftState, string> = {
  kept: 'Kept',
  typing: 'Typing…',
  keeping: 'Keeping…',
  conflict: 'Changed by someone else',
  failed: 'Not kept',
}
</script>

<template>
  <div class="heading">
    <h1>{{ name }}</h1>
    <span class="pill" :class="{ live: liveVersion !== null && !changed }">{{
      liveVersion === null
        ? 'draft, not live yet'
        : changed
          ? `draft over version ${liveVersion}`
          : `as live, version ${liveVersion}`
    }}</span>
    <span class="state" :class="state" role="status">{{ STATES[state] }}</span>
    <button v-if="state === 'conflict'" class="btn" @click="emit('theirs')">Take theirs</button>
    <button v-if="state === 'conflict'" class="btn" @click="emit('copy')">Copy mine</button>
    <span class="gap"></span>
    <slot></slot>
    <button class="btn" :disabled="!canUndo" @click="emit('undo')">Undo</button>
    <button class="btn" :disabled="!canRedo" @click="emit('redo')">Redo</button>
    <button class="btn" :aria-pressed="proof" @click="emit('proof')">Proof sheet</button>
    <button class="btn" :disabled="!changed" @click="emit('giveUp')">Give up the draft</button>
    <button
      class="btn main"
      :disabled="!ready || (liveVersion !== null && !changed)"
      :title="liveVersion !== null && !changed ? 'Nothing is changed yet' : ''"
      @click="emit('live')"
    >
      Go live…
    </button>
  </div>
</template>

<style scoped>
h1 {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.pill {
  color: var(--clay);
}
.pill.live {
  color: var(--kelp);
}
.state {
  font-size: 12px;
  color: var(--ink-2);
  min-width: 60px;
}
.state.conflict,
.state.failed {
  color: var(--failed);
  font-weight: 650;
}
</style>
