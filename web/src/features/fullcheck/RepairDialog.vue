<script setup lang="ts">
import { computed, ref } from 'vue'
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
  left: string
  right: string
}>()
const emit = defineEmits<{ close: []; begun: [] }>()
const { busy, error, during } = useActing()

const leads = ref<'LEFT' | 'RIGHT' | null>(null)
/** Where both have the task, one may be right as a whole. */
const both = computed(() =>
  props.what.some((one) => one.many > 0 && ['NOT_CARRIED', 'APART'].includes(one.kind)),
)

async function start() {
  if (await during(() => repair(props.check, props.wish, both.value ? leads.value : null))) {
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
    <fieldset v-if="both">
      <legend>Where both have the task, what is right?</legend>
      <label><input v-model="leads" type="radio" :value="null" /> What the bridge says</label>
      <label
        ><input v-model="leads" type="radio" value="LEFT" /> {{ left }}: the other follows it
        once</label
      >
      <label
        ><input v-model="leads" type="radio" value="RIGHT" /> {{ right }}: the other follows it
        once</label
      >
    </fieldset>
    <p v-if="leads" class="mid">
      Whatever differs is written over, such as after a copy of one side was put back; the traces
      tell what stood there.
    </p>
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
fieldset {
  border: 0;
  margin: 0 0 10px;
  padding: 0;
}
legend {
  padding: 0;
  font-weight: 600;
}
fieldset label {
  display: block;
}
ul {
  margin: 0 0 10px;
  padding-left: 18px;
}
</style>
