<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { leaveRemoved, makeAnew } from './api'

/** What is to become of a task that others removed. */
const props = defineProps<{ trace: string }>()
const emit = defineEmits<{ refused: [why: string]; done: [] }>()
const router = useRouter()
const busy = ref(false)

async function run(what: () => Promise<void>) {
  busy.value = true
  emit('refused', '')
  try {
    await what()
  } catch (e) {
    emit('refused', (e as Error).message)
  } finally {
    busy.value = false
  }
}

const anew = () =>
  run(async () => {
    const fresh = await makeAnew(props.trace)
    await router.push({ name: 'trace', params: { id: fresh.trace } })
  })

const leave = () =>
  run(async () => {
    await leaveRemoved(props.trace)
    emit('done')
  })
</script>

<template>
  <button
    class="btn"
    type="button"
    title="Later events of this record leave it too"
    :disabled="busy"
    @click="leave"
  >
    Leave it removed
  </button>
  <button class="btn main" type="button" :disabled="busy" @click="anew">Make the task anew</button>
</template>
