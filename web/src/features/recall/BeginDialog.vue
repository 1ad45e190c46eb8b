<script setup lang="ts">
import { computed, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { about, spanText } from '@/shared/format/time'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { begin, type Recall } from './api'
import { records } from './words'

/** Asks once more before anything is taken back. */
const props = defineProps<{ recall: Recall }>()
const emit = defineEmits<{ close: []; begun: [] }>()
const { busy, error, during } = useActing()
const evenIfChanged = ref(false)
const seconds = computed(() =>
  evenIfChanged.value ? props.recall.secondsUnlooked : props.recall.seconds,
)

async function start() {
  const { id, counts } = props.recall
  if (await during(() => begin(id, counts.chosen, evenIfChanged.value))) {
    emit('begun')
    emit('close')
  }
}
</script>

<template>
  <OverDialog :title="`Take back ${records(recall.counts.chosen)}`" @close="emit('close')">
    <p>
      They are taken away at their systems, the last made first, at the pace that those allow. What
      somebody changes before it is its turn stays. Nothing that comes later makes them again,
      unless a person says so.
      <template v-if="recall.counts.puts"
        >What was there before stays, and its fields hold again what they held; the next event of
        its record may change them anew.</template
      >
    </p>
    <label class="all">
      <input v-model="evenIfChanged" type="checkbox" />
      <span
        >Also what somebody changes until then
        <small class="mid">None of them is looked at first, which halves the calls.</small></span
      >
    </label>
    <p v-if="recall.slowest" class="mid">
      {{ recall.slowest }} answers {{ recall.limitCalls }} calls in
      {{ spanText(recall.limitSeconds! * 1000) }}, so that it takes {{ about(seconds) }}. It can be
      stopped, and goes on after a restart.
    </p>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" :disabled="busy" autofocus @click="start">
        Take back {{ records(recall.counts.chosen) }}
      </button>
    </template>
  </OverDialog>
</template>

<style scoped>
.all {
  display: flex;
  gap: 8px;
  align-items: baseline;
  margin: 12px 0;
}
small {
  display: block;
}
</style>
