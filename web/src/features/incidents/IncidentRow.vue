<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/shared/composables/session'
import { age, dayAndTime, timeOfDay } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { SendAgain } from '@/features/resend'
import type { Incident } from './api'
import { waitsWords } from './words'

/** An incident among what needs a person. */
const props = defineProps<{ incident: Incident }>()
const emit = defineEmits<{ changed: [] }>()
const { now, zone } = useSession()
const waits = computed(() => waitsWords(props.incident))
const more = computed(() => {
  const one = props.incident
  return [
    one.because,
    one.nextProbe ? `It is called again at ${timeOfDay(one.nextProbe, zone.value)}.` : '',
    one.goesOn && !one.heldBridge ? 'What waits goes on by itself then.' : '',
    one.mendingSince ? `Being mended for ${age(one.mendingSince, now.value)}.` : '',
    one.cameBack ? `It came back${one.cameBack > 1 ? ` ${one.cameBack} times` : ''}.` : '',
  ]
    .filter(Boolean)
    .join(' ')
})
</script>

<template>
  <li>
    <VerdictMark :kind="incident.heldBridge ? 'HELD' : 'FAILED'" />
    <p>
      <b>{{ incident.headline }}</b>: {{ waits }}
      <small>{{ more }}</small>
    </p>
    <span class="mono dim" :title="dayAndTime(incident.openedAt, now, zone)">
      for {{ age(incident.openedAt, now) }}
    </span>
    <span class="acts">
      <SendAgain v-if="incident.sendable" :incident="incident" @begun="emit('changed')" />
      <RouterLink class="btn" :to="{ name: 'incident', params: { id: incident.id } }"
        >See the incident</RouterLink
      >
    </span>
  </li>
</template>
