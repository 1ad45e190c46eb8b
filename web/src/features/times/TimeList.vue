<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { clockText, placeName } from '@/shared/format/time'
import type { TimeView } from './api'

/** Times to come, each as the clocks of its zone show it, and as those of the viewer do. */
const props = defineProps<{ times: TimeView[]; zone: string; act: string }>()
const emit = defineEmits<{ act: [time: TimeView] }>()
const { zone: own } = useSession()

const local = (text: string) => {
  const { day, time } = clockText(new Date(`${text.slice(0, 16)}:00Z`), 'UTC')
  return { day: `${day} ${text.slice(0, 4)}`, time }
}
const here = (time: TimeView) => {
  const { day, time: clock } = clockText(new Date(time.at), own.value)
  return `${day}, ${clock}`
}
const elsewhere = () => props.zone !== own.value

function marks(time: TimeView): string[] {
  const marks: string[] = []
  if (time.moved) marks.push(`moved from ${local(time.said).day}, a day off`)
  if (time.clock === 'SKIPPED') {
    marks.push(`${local(time.said).time} is not there that day: the clock is put forward`)
  }
  if (time.clock === 'TWICE') marks.push('comes twice that day: the clock is put back')
  if (time.run) marks.push('run by hand already')
  return marks
}
</script>

<template>
  <table v-if="times.length" class="timed">
    <thead>
      <tr>
        <th>{{ placeName(zone) }}</th>
        <th></th>
        <th v-if="elsewhere()">{{ placeName(own) }}</th>
        <th><span class="unseen">What is special</span></th>
        <th v-if="act"><span class="unseen">To do</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="time in times" :key="time.at">
        <td>{{ local(time.local).day }}</td>
        <td class="mono">{{ local(time.local).time }}</td>
        <td v-if="elsewhere()" class="mid">{{ here(time) }}</td>
        <td class="marks">
          <span v-for="mark in marks(time)" :key="mark">{{ mark }}</span>
        </td>
        <td v-if="act" class="act">
          <button
            v-if="!time.run"
            class="btn bare"
            :aria-label="`${act}: ${local(time.local).day} ${local(time.local).time}`"
            @click="emit('act', time)"
          >
            {{ act }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-else class="mid">It does not come any more.</p>
</template>

<style scoped>
td {
  white-space: nowrap;
}
.marks {
  color: var(--held);
  font-size: 13px;
  white-space: normal;
}
.marks span + span::before {
  content: '; ';
}
.act {
  padding: 0;
}
</style>
