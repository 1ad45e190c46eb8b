<script setup lang="ts">
import { ref } from 'vue'
import { takeBack } from './api'

/** Takes back the task a try made; asks once more when someone worked on it since. */
const props = defineProps<{ trace: string }>()
const emit = defineEmits<{ refused: [why: string]; done: [] }>()
const touched = ref(false)
const busy = ref(false)

async function back() {
  busy.value = true
  try {
    await takeBack(props.trace, touched.value)
    emit('refused', '')
  } catch (e) {
    const why = (e as Error).message
    touched.value = why.startsWith('Someone changed')
    emit('refused', why)
  } finally {
    busy.value = false
    emit('done')
  }
}
</script>

<template>
  <button class="btn main" type="button" :disabled="busy" @click="back">
    {{ touched ? 'Take it back all the same' : 'Take the task back' }}
  </button>
</template>
