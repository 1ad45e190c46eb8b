<script setup lang="ts">
import { computed, ref } from 'vue'
import { counted } from '@/shared/format/words'
import { readFaults, switchOff, switchOn, type FaultView } from './api'

/** The faults of a system for practice: switched on for some calls, and off again. */
const props = defineProps<{ id: string; name: string }>()
const emit = defineEmits<{ switched: [] }>()
const faults = ref<FaultView[] | null>(null)
const error = ref('')
const kind = ref('')
const calls = ref(3)
const from = ref('')
const to = ref('')
const on = computed(() => faults.value?.filter((one) => one.calls > 0) ?? [])

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
  await during(() => switchOn(props.id, kind.value, calls.value, field))
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
        <input v-model.number="calls" class="in number" type="number" min="1" max="1000" />
        calls</label
      >
      <button class="btn">Switch on</button>
      <button type="button" class="btn" :disabled="!on.length" @click="stop">All off</button>
      <span class="mid" role="status">{{
        on.length
          ? on.map((one) => `${one.title}, ${counted(one.calls, 'call')} more`).join('; ')
          : 'none is on'
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
