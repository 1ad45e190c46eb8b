<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { readWaiting, retire, type Held, type Waiting } from './api'

/** Retires a bridge that is held, once a person has seen what waits for it. */
const props = defineProps<{ bridge: Held }>()
const emit = defineEmits<{ retired: [] }>()
const waiting = ref<Waiting | null>(null)
const because = ref('')
const { busy, error, during } = useActing()

const ask = () =>
  during(async () => {
    waiting.value = await readWaiting(props.bridge.id)
  })
const retireIt = () =>
  during(async () => {
    await retire(props.bridge.id, because.value.trim(), waiting.value!.events)
    waiting.value = null
    emit('retired')
  })
const many = (count: number, one: string) => (count === 1 ? `1 ${one}` : `${count} ${one}s`)
</script>

<template>
  <button class="btn" :disabled="busy" @click="ask">Retire…</button>
  <span v-if="error && !waiting" class="bad" role="alert">{{ error }}</span>
  <OverDialog v-if="waiting" :title="`Retire “${bridge.name}”`" @close="waiting = null">
    <form id="retire" @submit.prevent="retireIt">
      <p>
        It receives and delivers nothing more. Its versions, its traces and its pairs are kept;
        putting a version to work again from its desk brings it back.
      </p>
      <p v-if="waiting.deliveries" class="bad">
        {{ waiting.deliveries === 1 ? '1 delivery is' : `${waiting.deliveries} deliveries are` }}
        decided and not made yet. Release it until they are, then hold and retire it.
      </p>
      <p v-else-if="waiting.events">
        <b>{{ many(waiting.events, 'event') }}</b> that arrived while it was held will pass by, with
        that as the reason.
      </p>
      <p v-else class="mid">Nothing waits for it.</p>
      <label class="asked why">
        <span>Why, for everyone who looks for it</span>
        <input v-model="because" class="in" maxlength="200" required autofocus />
      </label>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button
        class="btn main"
        type="submit"
        form="retire"
        :disabled="busy || !because.trim() || waiting.deliveries > 0"
      >
        Retire it
      </button>
    </template>
  </OverDialog>
</template>

<style scoped>
.why {
  display: block;
  margin-top: 12px;
}
</style>
