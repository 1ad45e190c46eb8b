<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { addNote, changeNote, type Note } from './api'

/** Writes a note down, or writes one anew. */
const props = defineProps<{ bridge: string; note: Note | null }>()
const emit = defineEmits<{ close: []; kept: [notes: Note[]] }>()
const kind = ref<Note['kind']>(props.note?.kind ?? 'NOTE')
const words = ref(props.note?.words ?? '')
const link = ref(props.note?.link ?? '')
const { busy, error, during } = useActing()

const keep = () =>
  during(async () => {
    const wish = {
      kind: kind.value,
      words: words.value,
      link: link.value,
      over: Boolean(props.note?.overSince),
      basedOn: props.note?.revision ?? 0,
    }
    emit(
      'kept',
      await (props.note
        ? changeNote(props.bridge, props.note.id, wish)
        : addNote(props.bridge, wish)),
    )
  })
</script>

<template>
  <OverDialog :title="note ? 'Write it anew' : 'A note on this bridge'" @close="emit('close')">
    <form id="note" class="fields" @submit.prevent="keep">
      <label class="asked"
        ><span>What it is</span>
        <select v-model="kind" class="in">
          <option value="NOTE">a note</option>
          <option value="TROUBLE">a known trouble, shown where the bridge fails</option>
        </select></label
      >
      <label class="asked"
        ><span>In words</span>
        <textarea
          v-model="words"
          class="in"
          rows="5"
          maxlength="4000"
          required
          autofocus
        ></textarea>
      </label>
      <label class="asked"
        ><span>A link, if there is more to read</span>
        <input v-model="link" class="in" maxlength="1000" placeholder="https://"
      /></label>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" type="submit" form="note" :disabled="busy || !words.trim()">
        Keep
      </button>
    </template>
  </OverDialog>
</template>
