<script setup lang="ts">
import { useRouter } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import { listMade, type RecallWish } from './api'

/** Leads to the list of what would be taken back. */
const props = defineProps<{ wish: RecallWish; label: string }>()
const emit = defineEmits<{ refused: [why: string] }>()
const router = useRouter()
const { busy, error, during } = useActing()

async function list() {
  let id = 0
  const listed = await during(async () => {
    id = (await listMade(props.wish)).id
  })
  if (listed) await router.push({ name: 'recall', params: { id } })
  else emit('refused', error.value)
}
</script>

<template>
  <button class="btn" type="button" :disabled="busy" @click="list">{{ label }}</button>
</template>
