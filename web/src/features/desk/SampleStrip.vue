<script setup lang="ts">
import { computed, nextTick, useTemplateRef } from 'vue'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import type { SampleView } from './api'

/** The samples on top of the desk; the arrows step through them. */
const props = defineProps<{
  samples: SampleView[]
  inView: number
  waiting: boolean
  sourceProblem: string
}>()
const emit = defineEmits<{
  show: [id: string]
  again: []
  add: []
  wait: []
  remove: [id: string]
}>()
const { now, zone } = useSession()
const list = useTemplateRef<HTMLElement>('list')

const ORIGINS = {
  ADDED: 'added',
  READ: 'read at the source',
  RECEIVED: '',
  TO_COME: 'to come',
}
const current = computed(() => props.samples[props.inView])

function step(by: number) {
  const next = Math.min(props.samples.length - 1, Math.max(0, props.inView + by))
  const sample = props.samples[next]
  if (!sample) return
  emit('show', sample.id)
  void nextTick(() => {
    const at = list.value?.children[next] as HTMLElement | undefined
    at?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
    at?.focus()
  })
}
</script>

<template>
  <div class="strip">
    <span id="strip-label" class="label"
      >Events <span class="mono">{{ samples.length }}</span></span
    >
    <div
      ref="list"
      class="list"
      role="listbox"
      aria-labelledby="strip-label"
      @keydown.left.prevent="step(-1)"
      @keydown.right.prevent="step(1)"
    >
      <button
        v-for="(sample, i) in samples"
        :key="sample.id"
        role="option"
        class="sample"
        :class="{ on: i === inView, own: sample.origin !== 'RECEIVED' }"
        :aria-selected="i === inView"
        :tabindex="i === inView ? 0 : -1"
        :title="sample.title || sample.record"
        @click="emit('show', sample.id)"
      >
        <VerdictMark v-if="sample.verdict" :kind="sample.verdict" />
        <span class="mono">{{ sample.record }}</span>
        <span class="dim">{{ ORIGINS[sample.origin] || dayAndTime(sample.time, now, zone) }}</span>
      </button>
    </div>
    <span class="mid keys"><kbd>←</kbd> <kbd>→</kbd></span>
    <button v-if="current?.origin === 'ADDED'" class="btn bare" @click="emit('remove', current.id)">
      Remove
    </button>
    <button class="btn bare" @click="emit('add')">Add…</button>
    <button class="btn bare" :aria-pressed="waiting" @click="emit('wait')">
      <span v-if="waiting" class="pulse" aria-hidden="true"></span>
      {{ waiting ? 'Waiting for the next' : 'Wait for the next' }}
    </button>
    <button class="btn bare" @click="emit('again')">Read again</button>
  </div>
  <p v-if="sourceProblem" class="note">
    The source could not be read for more: {{ sourceProblem }}
  </p>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 6px 20px;
  border-bottom: 1px solid var(--line);
  background: var(--panel);
}
.label {
  font-weight: 650;
  white-space: nowrap;
}
.list {
  display: flex;
  gap: 6px;
  overflow-x: auto;
  flex: 1;
  padding: 3px;
  scrollbar-width: thin;
}
.sample {
  display: flex;
  gap: 6px;
  align-items: center;
  flex: none;
  border: 1px solid var(--line);
  background: var(--ground);
  color: var(--ink);
  border-radius: 4px;
  padding: 2px 8px;
  cursor: pointer;
}
.sample.own {
  border-style: dashed;
  border-color: var(--line-2);
}
.sample.on {
  border-color: var(--clay);
  background: var(--panel);
  box-shadow: inset 0 -2px 0 var(--clay);
}
.strip .btn.bare {
  padding: 4px 6px;
}
.keys {
  white-space: nowrap;
}
.pulse {
  display: inline-block;
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--clay);
  margin-right: 4px;
  animation: pulse 1.4s ease-in-out infinite;
}
@keyframes pulse {
  50% {
    opacity: 0.25;
  }
}
@media (prefers-reduced-motion: reduce) {
  .pulse {
    animation: none;
  }
}
</style>
