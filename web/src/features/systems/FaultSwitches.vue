<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSession } from '@/shared/composables/session'
import { timeOfDay } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import { readFaults, switchOff, switchOn, type FaultView } from './api'

/** The faults of a system for practice: switched on for calls, minutes or a share, and off again. */
const props = defineProps<{ id: string; name: string }>()
const emit = defineEmits<{ switched: [] }>()
const faults = ref<FaultView[] | null>(null)
const error = ref('')
const kind = ref('')
const number = ref(3)
const counts = ref<'calls' | 'minutes' | 'share'>('calls')
const { zone } = useSession()
const from = ref('')
const to = ref('')
const on = computed(() => faults.value?.filter((one) => one.on) ?? [])

/** How long a fault lasts. */
function lasts(fault: FaultView): string {
  const share = fault.share < 100 ? `${fault.share} of 100 calls, ` : ''
  if (fault.until) return `${share}until ${timeOfDay(fault.until, zone.value)}`
  return share + (fault.calls ? `${counted(fault.calls, 'call')} more` : 'until it is switched off')
}

async function during(act: () => Promise<FaultView[] | undefined>) {
  try {
    faults.value = (await act()) ?? (await readFaults(props.id))
    kind.value ||= faults.value[0]?.kind ?? ''
    error.value = ''
  } catch (e) {
    error.value = (e as Error).message
  }
}

const opened = (event: Event) =>
  (event.target as HTMLDetailsElement).open && during(() => readFaults(props.id))

async function start() {
  const field = kind.value === 'field-renamed' ? `${from.value}:${to.value}` : ''
  const wish = { kind: kind.value, calls: 0, minutes: 0, share: 0, field }
  await during(() => switchOn(props.id, { ...wish, [counts.value]: number.value }))
  emit('switched')
}

async function stop() {
  await during(() => switchOff(props.id))
  emit('switched')
}
</script>

<template>
  <details class="faults" @toggle="opened">
    <summary>Practise its faults</summary>
    <form v-if="faults" @submit.prevent="start">
      <select v-model="kind" class="in" :aria-label="`A fault of ${name}`">
        <option v-for="one in faults" :key="one.kind" :value="one.kind">{{ one.title }}</option>
      </select>
      <template v-if="kind === 'field-renamed'">
        <input v-model="from" class="in" required placeholder="field" aria-label="The field" />
        <input
          v-model="to"
          class="in"
          required
          placeholder="called then"
          aria-label="What it is called then"
        />
      </template>
      <label
        >for
        <input
          v-model.number="number"
          class="in number"
          type="number"
          min="1"
          :max="counts === 'share' ? 100 : 1000"
        />
      </label>
      <select v-model="counts" class="in" aria-label="For how long">
        <option value="calls">calls</option>
        <option value="minutes">minutes</option>
        <option value="share">of 100 calls</option>
      </select>
      <button class="btn">Switch on</button>
      <button type="button" class="btn" :disabled="!on.length" @click="stop">All off</button>
      <span class="mid" role="status">{{
        on.length ? on.map((one) => `${one.title}, ${lasts(one)}`).join('; ') : 'none is on'
      }}</span>
    </form>
    <p v-if="error" class="bad">{{ error }}</p>
  </details>
</template>

<style scoped>
.faults {
  padding: 8px 0 0;
}
summary {
  cursor: pointer;
  color: var(--kelp);
}
form {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  padding: 6px 0;
}
.number {
  width: 70px;
}
</style>
