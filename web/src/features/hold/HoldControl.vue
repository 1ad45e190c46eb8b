<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { ForeseenRows } from '@/features/resend'
import { hold, release, type Held } from './api'

/** Holds a live bridge, with a reason others can read, and releases it. */
const props = defineProps<{ bridge: Held }>()
const emit = defineEmits<{ changed: [] }>()
const asking = ref(false)
const because = ref('')
const { busy, error, during } = useActing()

async function change(act: () => Promise<unknown>) {
  if (await during(act)) {
    asking.value = false
    because.value = ''
    emit('changed')
  }
}
const holdIt = () => change(() => hold(props.bridge.id, because.value.trim()))
const releaseIt = () => change(() => release(props.bridge.id))
</script>

<template>
  <button v-if="bridge.heldSince" class="btn" :disabled="busy" @click="asking = true">
    Release…
  </button>
  <button v-else class="btn" @click="asking = true">Hold…</button>
  <span v-if="error && !asking" class="bad" role="alert">{{ error }}</span>
  <OverDialog
    v-if="asking && bridge.heldSince"
    wide
    :title="`Release “${bridge.name}”`"
    @close="asking = false"
  >
    <p>What waits goes on its way, in the order in which it came:</p>
    <ForeseenRows :of="{ bridge: bridge.id }" />
    <p class="mid">
      If that comes to more than its ceiling, it holds itself again, and the rest waits on.
    </p>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" :disabled="busy" autofocus @click="releaseIt">Release it</button>
    </template>
  </OverDialog>
  <OverDialog v-else-if="asking" :title="`Hold “${bridge.name}”`" @close="asking = false">
    <form id="hold" @submit.prevent="holdIt">
      <p>
        Nothing more leaves over this bridge. What arrives is kept and goes on its way, in order,
        when it is released.
      </p>
      <label class="asked why">
        <span>Why, for everyone who finds it held</span>
        <input v-model="because" class="in" maxlength="200" required autofocus />
      </label>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" type="submit" form="hold" :disabled="busy || !because.trim()">
        Hold it
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
