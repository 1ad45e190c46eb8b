<script setup lang="ts">
import { ref } from 'vue'
import SendAgainDialog from './SendAgainDialog.vue'
import { sendAgain, type Rules, type Waiting } from './api'

/** Sends again together what waits of one incident, once its cause is mended. */
const props = defineProps<{ incident: Waiting }>()
const emit = defineEmits<{ begun: [] }>()
const asking = ref(false)
const send = (many: number, rules: Rules) => sendAgain({ incident: props.incident.id }, many, rules)
</script>

<template>
  <button class="btn" @click="asking = true">Send again…</button>
  <SendAgainDialog
    v-if="asking"
    :title="`Send again: ${incident.headline}`"
    :of="{ incident: incident.id }"
    :many="incident.sendable"
    :send="send"
    @sent="emit('begun')"
    @close="asking = false"
  />
</template>
