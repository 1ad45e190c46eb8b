<script setup lang="ts">
import { onMounted, onUnmounted, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { addPicture } from './api'

/** Adds a picture to a note: from a file, or pasted. */
const props = defineProps<{ bridge: string; note: number }>()
const emit = defineEmits<{ close: []; added: [] }>()
const file = ref<File | null>(null)
const shows = ref('')
const { busy, error, during } = useActing()

const choose = (event: Event) =>
  (file.value = (event.target as HTMLInputElement).files?.[0] ?? null)
function paste(event: ClipboardEvent) {
  const pasted = [...(event.clipboardData?.files ?? [])].find((one) => /^image\//.test(one.type))
  if (pasted) file.value = pasted
}
onMounted(() => window.addEventListener('paste', paste))
onUnmounted(() => window.removeEventListener('paste', paste))

async function add() {
  const picture = file.value
  if (!picture) return
  if (await during(() => addPicture(props.bridge, props.note, picture, shows.value))) emit('added')
}
</script>

<template>
  <OverDialog title="A picture for this note" @close="emit('close')">
    <form id="picture" class="fields" @submit.prevent="add">
      <label class="asked"
        ><span>The picture: choose a file, or paste one here</span>
        <input
          class="in"
          type="file"
          accept="image/png,image/jpeg,image/gif,image/webp"
          autofocus
          @change="choose"
      /></label>
      <p v-if="file" class="mid" role="status">
        {{ file.name }}, {{ Math.ceil(file.size / 1024).toLocaleString('en') }} KB
      </p>
      <label class="asked"
        ><span>What it shows</span> <input v-model="shows" class="in" maxlength="200" required
      /></label>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button
        class="btn main"
        type="submit"
        form="picture"
        :disabled="busy || !file || !shows.trim()"
      >
        Add
      </button>
    </template>
  </OverDialog>
</template>
