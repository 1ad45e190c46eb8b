<script setup lang="ts">
import { nextTick, useTemplateRef } from 'vue'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import type { SampleView } from './api'

const props = defineProps<{ samples: SampleView[]; inView: number }>()
const emit = defineEmits<{ show: [place: number]; again: [] }>()
const { now, zone } = useSession()
const list = useTemplateRef<HTMLElement>('list')

function step(by: number) {
  const next = Math.min(props.samples.length - 1, Math.max(0, props.inView + by))
  emit('show', next)
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
      >Real events <span class="mono">{{ samples.length }}</span></span
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
        :class="{ on: i === inView }"
        :aria-selected="i === inView"
        :tabindex="i === inView ? 0 : -1"
        :title="sample.title || sample.record"
        @click="emit('show', i)"
      >
        <VerdictMark v-if="sample.verdict" :kind="sample.verdict" />
        <span class="mono">{{ sample.record }}</span>
        <span class="dim">{{ dayAndTime(sample.time, now, zone) }}</span>
      </button>
    </div>
    <span class="mid keys"><kbd>←</kbd> <kbd>→</kbd> step through them</span>
    <button class="btn bare" @click="emit('again')">Read again</button>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 10px;
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
.sample.on {
  border-color: var(--clay);
  background: var(--panel);
  box-shadow: inset 0 -2px 0 var(--clay);
}
.keys {
  white-space: nowrap;
  font-size: 12px;
}
</style>
