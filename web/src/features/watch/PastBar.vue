<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import type { Past } from './api'

const props = defineProps<{ past: Past; now: string }>()
const { zone } = useSession()

const DAY = 86_400_000
const span = computed(() => Date.parse(props.past.until) - Date.parse(props.past.from))
const gone = computed(() => Date.parse(props.now) - Date.parse(props.past.from))
const days = computed(() => Math.round(span.value / DAY))
const left = computed(() => Math.max(0, Math.ceil((span.value - gone.value) / DAY)))
</script>

<template>
  <section class="past" role="status">
    <p>
      <b>The past is being made</b>: it is {{ dayAndTime(now, new Date(past.until), zone) }} here,
      {{ counted(left, 'day') }} of {{ days }} to go. Everything below is really carried across;
      look around meanwhile.
    </p>
    <progress :value="gone" :max="span" aria-label="How far the past is"></progress>
  </section>
</template>

<style scoped>
.past {
  margin-bottom: 18px;
}
progress {
  display: block;
  width: 100%;
  height: 6px;
  appearance: none;
  border: 0;
  background: var(--line);
  border-radius: 3px;
  overflow: hidden;
}
progress::-webkit-progress-bar {
  background: var(--line);
}
progress::-webkit-progress-value {
  background: var(--ink-2);
}
progress::-moz-progress-bar {
  background: var(--ink-2);
}
</style>
