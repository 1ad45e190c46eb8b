<script setup lang="ts">
import { computed, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { keepView, removeView, type SavedView } from './api'

/** Views of the register by name: showing one, keeping the one that is seen, taking one away. */
const props = defineProps<{ views: SavedView[]; query: string }>()
const emit = defineEmits<{ show: [query: string]; changed: [] }>()
const naming = ref(false)
const name = ref('')
const { busy, error, during } = useActing()
const current = computed(() => props.views.find((one) => one.query === props.query))

async function keep() {
  if (await during(() => keepView(name.value.trim(), props.query))) {
    naming.value = false
    emit('changed')
  }
}
async function remove() {
  if (current.value && (await during(() => removeView(current.value!.name)))) emit('changed')
}
function begin() {
  name.value = current.value?.name ?? ''
  naming.value = true
}
const chosen = (event: Event) => (event.target as HTMLSelectElement).value
const show = (called: string) =>
  emit('show', props.views.find((one) => one.name === called)?.query ?? '')
</script>

<template>
  <select class="in" aria-label="View" :value="current?.name ?? ''" @change="show(chosen($event))">
    <option value="">{{ query && !current ? 'This view, not kept' : 'All bridges' }}</option>
    <option v-for="one in views" :key="one.name" :value="one.name">{{ one.name }}</option>
  </select>
  <button v-if="current" class="btn bare" :disabled="busy" @click="remove">Forget this view</button>
  <button v-else-if="query" class="btn bare" @click="begin">Keep this view…</button>
  <span v-if="error && !naming" class="bad" role="alert">{{ error }}</span>
  <OverDialog v-if="naming" title="Keep this view" @close="naming = false">
    <form id="view" @submit.prevent="keep">
      <label class="asked"
        ><span>What it is called, for everyone</span>
        <input v-model="name" class="in" maxlength="100" required autofocus
      /></label>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" type="submit" form="view" :disabled="busy || !name.trim()">
        Keep it
      </button>
    </template>
  </OverDialog>
</template>
