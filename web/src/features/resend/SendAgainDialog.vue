<script setup lang="ts">
import { computed, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { counted } from '@/shared/format/words'
import OverDialog from '@/shared/ui/OverDialog.vue'
import ForeseenRows from './ForeseenRows.vue'
import type { ForeseenList, Rules, ToSend } from './api'

/** Shows what would become of events if they crossed once more, and sends them. */
const props = defineProps<{
  title: string
  of: ToSend
  /** How many can be sent, as far as that is known before looking. */
  many: number
  send: (many: number, rules: Rules) => Promise<unknown>
}>()
const emit = defineEmits<{ close: []; sent: [] }>()
const { busy, error, during } = useActing()

/** As many are looked at together; asking for more costs calls that nobody reads the answers of. */
const MOST_LOOKED_AT = 50
const rules = ref<Rules>('LIVE')
const looking = ref(props.many <= MOST_LOOKED_AT)
const seen = ref<ForeseenList | null>(null)
const sendable = computed(() =>
  // One alone may be sent even if nobody knows whether it was made.
  props.many === 1 ? 1 : (seen.value?.sendable ?? props.many),
)

async function begin() {
  if (await during(() => props.send(sendable.value, rules.value))) {
    emit('sent')
    emit('close')
  }
}
</script>

<template>
  <OverDialog wide :title="title" @close="emit('close')">
    <p>
      <b>{{ counted(sendable, 'event') }}</b> would cross once more, in the order in which they
      came, with fresh lookups and
    </p>
    <fieldset aria-label="Rules">
      <label><input v-model="rules" type="radio" value="LIVE" /> the rules that are live now</label>
      <label
        ><input v-model="rules" type="radio" value="AS_BEFORE" /> the version by which each was
        decided before</label
      >
    </fieldset>
    <p class="mid">
      What was made already is not made twice, and what a later event wrote is not written over.
      What fails again waits here as before. If it comes to more than the bridge’s ceiling, the
      bridge holds itself.
    </p>
    <ForeseenRows v-if="looking" :key="rules" :of="of" :rules="rules" @seen="seen = $event" />
    <button v-else class="btn bare" @click="looking = true">
      See what the first {{ MOST_LOOKED_AT }} would become
    </button>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" :disabled="busy || !sendable" autofocus @click="begin">
        Send {{ counted(sendable, 'event') }} again
      </button>
    </template>
  </OverDialog>
</template>

<style scoped>
fieldset {
  display: grid;
  gap: 4px;
  margin: 6px 0 8px;
  padding: 0;
  border: 0;
}
label {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
