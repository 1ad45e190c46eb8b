<script setup lang="ts">
import { computed, ref } from 'vue'
import { onChange } from '@/shared/composables/live'
import { useSession } from '@/shared/composables/session'
import { momentText } from '@/shared/format/time'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { TakeBack, readTrace, type TraceView } from '@/features/traces'
import { sendTry, type SampleView, type TrialView } from './api'

/** Sends the event in view for real, once, and takes back what came of it. */
const props = defineProps<{
  id: string
  text: string
  trial: TrialView
  sample: SampleView
  target: string
}>()
const emit = defineEmits<{ close: [] }>()
const { zone } = useSession()
const trace = ref('')
const view = ref<TraceView | null>(null)
const error = ref('')
const busy = ref(false)

const leaving = computed(() => props.trial.leaving.filter((field) => field.shown))
const done = computed(() => view.value !== null && view.value.trace.verdict !== 'WAITING')
const made = computed(() => done.value && view.value!.trace.target !== '')
const back = computed(() => view.value?.trace.takenBackAt != null)

async function look() {
  if (!trace.value) return
  try {
    view.value = await readTrace(trace.value)
  } catch (e) {
    error.value = (e as Error).message
  }
}
onChange(
  (change) => change.trace === trace.value,
  () => void look(),
  120,
)

async function send() {
  busy.value = true
  error.value = ''
  try {
    trace.value = (await sendTry(props.id, props.text, props.sample.id)).trace
  } catch (e) {
    error.value = (e as Error).message
  } finally {
    busy.value = false
    await look()
  }
}
</script>

<template>
  <OverDialog title="Try it for real" @close="emit('close')">
    <template v-if="!trace">
      <p>
        The event of <b class="mono">{{ sample.record }}</b> is sent once by this draft.
        {{ target }} will hold a new task with these values, and its people will see it. You can
        take it back here.<template v-if="trial.then.length">
          What else comes of an event is left out.</template
        >
      </p>
      <dl>
        <template v-for="field in leaving" :key="field.key">
          <dt>{{ field.name }}</dt>
          <dd>{{ momentText(field.shown, zone) }}</dd>
        </template>
      </dl>
    </template>
    <template v-else>
      <p v-if="!done" role="status">Under way…</p>
      <template v-else>
        <p v-if="back" role="status">
          The task is taken back. {{ target }} does not hold it any more.
        </p>
        <p v-else-if="made" role="status">
          {{ target }} holds the task
          <a v-if="view!.targetPage" :href="view!.targetPage" target="_blank">{{
            view!.trace.target
          }}</a><b v-else class="mono">{{ view!.trace.target }}</b
          >.
        </p>
        <p v-else role="status">No task was made. {{ view!.trace.reason }}</p>
        <p>
          <RouterLink :to="{ name: 'trace', params: { id: trace } }">Its trace</RouterLink>
          <span class="mid"> is marked as a try and counts nowhere.</span>
        </p>
      </template>
    </template>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">{{ trace ? 'Close' : 'Not now' }}</button>
      <button v-if="!trace" class="btn main" :disabled="busy" @click="send">
        Send this one event
      </button>
      <TakeBack v-else-if="made && !back" :trace="trace" @refused="error = $event" @done="look" />
    </template>
  </OverDialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 3px 12px;
  margin: 12px 0 0;
  max-height: 40vh;
  overflow: auto;
}
dt {
  text-align: right;
  color: var(--ink-2);
}
dd {
  margin: 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
