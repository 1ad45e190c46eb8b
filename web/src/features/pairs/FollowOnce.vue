<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { followOnce, type KeptPair } from './api'

/** Asks which of two tasks is right as a whole, this once. */
const props = defineProps<{ pair: KeptPair }>()
const emit = defineEmits<{ close: []; began: [trace: string] }>()
const { busy, error, during } = useActing()
const leads = ref<'LEFT' | 'RIGHT' | ''>('')

async function write() {
  if (!leads.value) return
  const side = leads.value
  await during(async () => {
    emit('began', (await followOnce(props.pair, side)).trace)
    emit('close')
  })
}
</script>

<template>
  <OverDialog :title="`Which is right: ${pair.title}`" @close="emit('close')">
    <p>
      The other is written over once, in each field that goes that way and does not stand for the
      same already, whoever changed what. What was written over stands in the trace.
    </p>
    <label v-for="side in ['LEFT', 'RIGHT'] as const" :key="side">
      <input v-model="leads" type="radio" name="leads" :value="side" />
      as it is in {{ side === 'LEFT' ? pair.left.place : pair.right.place }}
    </label>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" :disabled="busy || !leads" @click="write">
        Write over the other
      </button>
    </template>
  </OverDialog>
</template>

<style scoped>
label {
  display: block;
  margin: 6px 0;
}
</style>
