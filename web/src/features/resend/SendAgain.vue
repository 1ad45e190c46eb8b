<script setup lang="ts">
import { ref } from 'vue'
import { counted } from '@/shared/format/words'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import ForeseenRows from './ForeseenRows.vue'
import { sendAgain, type Waiting } from './api'

/** Sends again together what waits of one incident, once its cause is mended. */
const props = defineProps<{ incident: Waiting }>()
const emit = defineEmits<{ begun: [] }>()
const asking = ref(false)
const looking = ref(false)
const { busy, error, during } = useActing()

function ask() {
  asking.value = true
  looking.value = false
}

async function send() {
  if (await during(() => sendAgain(props.incident))) {
    asking.value = false
    emit('begun')
  }
}
</script>

<template>
  <button class="btn" @click="ask">Send again…</button>
  <OverDialog
    v-if="asking"
    wide
    :title="`Send again: ${incident.headline}`"
    @close="asking = false"
  >
    <p>
      <b>{{ counted(incident.sendable, 'event') }}</b> would cross once more, in the order in which
      they came, with the rules that are live now and fresh lookups.
    </p>
    <p class="mid">
      What was made already is not made twice, and what a later event wrote is not written over.
      What fails again waits here as before. If it comes to more than the bridge’s ceiling, the
      bridge holds itself.
    </p>
    <ForeseenRows v-if="looking" :of="{ incident: incident.id }" />
    <button v-else class="btn bare" @click="looking = true">See what each would become</button>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" :disabled="busy" autofocus @click="send">
        Send {{ counted(incident.sendable, 'event') }} again
      </button>
    </template>
  </OverDialog>
</template>

<style scoped>
p + p {
  margin-top: 8px;
}
</style>
