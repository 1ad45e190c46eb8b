<script setup lang="ts">
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { repair, type Kind } from './api'
import { doing } from './words'

/** Asks once more before anything is written. */
const props = defineProps<{
  check: number
  /** How many of each kind. */
  what: { kind: Kind; many: number }[]
  wish: { kinds: Kind[] } | { numbers: number[] }
}>()
const emit = defineEmits<{ close: []; begun: [] }>()
const { busy, error, during } = useActing()

async function start() {
  if (await during(() => repair(props.check, props.wish))) {
    emit('begun')
    emit('close')
  }
}
</script>

<template>
  <OverDialog title="Put right what differs" @close="emit('close')">
    <ul>
      <li v-for="line in doing(what)" :key="line">{{ line }}</li>
    </ul>
    <p class="mid">
      Each pair is looked at as it is then, by an ordinary trace: what changed since the check
      counts too, and ceilings and the pace of both systems hold. It can be stopped.
    </p>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" :disabled="busy" autofocus @click="start">Put right</button>
    </template>
  </OverDialog>
</template>

<style scoped>
ul {
  margin: 0 0 10px;
  padding-left: 18px;
}
</style>
