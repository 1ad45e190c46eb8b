<script setup lang="ts">
import { useActing } from '@/shared/composables/acting'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import { stopSending, type Resend } from './api'

/** What is being sent again together, and what came of it of late. */
defineProps<{ resends: Resend[] }>()
const emit = defineEmits<{ stopped: [] }>()
const { now, zone } = useSession()
const { busy, error, during } = useActing()

function words(one: Resend): string {
  const all = one.total === 1 ? 'sent' : `all ${one.total} sent`
  const far = one.state === 'SENT' ? all : `${one.sent} of ${one.total} sent`
  const ended = { RUNNING: '', SENT: '', STOPPED: ', stopped', BROKEN: ', broke off' }[one.state]
  const open = one.underWay ? `, ${one.underWay} under way` : ''
  const failed = one.failed ? `, ${one.failed} failed again` : open ? '' : ', none failed again'
  return far + ended + open + (one.sent ? failed : '')
}

async function stop(one: Resend) {
  await during(() => stopSending(one.id))
  emit('stopped')
}
</script>

<template>
  <section v-if="resends.length" class="again" aria-labelledby="again">
    <h2 id="again">Sent again <small>of the last 12 hours</small></h2>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <ul>
      <li v-for="one in resends" :key="one.id">
        <span
          ><b>{{ one.title }}</b
          >: {{ words(one) }}</span
        >
        <progress
          v-if="one.state === 'RUNNING'"
          :value="one.sent"
          :max="one.total"
          :aria-label="`How far it is: ${one.sent} of ${one.total}`"
        ></progress>
        <small v-if="one.problem" class="bad">{{ one.problem }}</small>
        <span class="gap"></span>
        <span class="mono dim">{{ dayAndTime(one.begunAt, now, zone) }}</span>
        <button v-if="one.state === 'RUNNING'" class="btn" :disabled="busy" @click="stop(one)">
          Stop
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.again {
  margin-bottom: 18px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--line);
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.gap {
  flex: 1;
}
</style>
