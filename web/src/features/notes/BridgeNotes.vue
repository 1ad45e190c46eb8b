<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import NoteDialog from './NoteDialog.vue'
import NotePictures from './NotePictures.vue'
import NoteWords from './NoteWords.vue'
import PictureDialog from './PictureDialog.vue'
import { changeNote, readNotes, type Note } from './api'

/** What people wrote down about a bridge: known troubles first, and what is over behind a fold. */
const props = defineProps<{ id: string }>()
const { now, zone } = useSession()
const { data, error, load } = useResource(() => readNotes(props.id))
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)
const open = computed(() =>
  (data.value ?? [])
    .filter((note) => !note.overSince)
    .sort((a, b) => Number(b.kind === 'TROUBLE') - Number(a.kind === 'TROUBLE')),
)
const over = computed(() => (data.value ?? []).filter((note) => note.overSince))
/** The note that is written anew; null for a new one. */
const writing = ref<{ note: Note | null } | null>(null)
/** The note that gets a picture. */
const picturing = ref<Note | null>(null)
const { busy, error: refused, during } = useActing()

function kept(notes: Note[]) {
  data.value = notes
  writing.value = null
}
async function pictured() {
  picturing.value = null
  await load()
}
const end = (note: Note, isOver: boolean) =>
  during(async () => {
    const { kind, words, link, revision } = note
    const wish = { kind, words, link, over: isOver, basedOn: revision }
    data.value = await changeNote(props.id, note.id, wish)
  })
</script>

<template>
  <div role="region" aria-labelledby="notes">
    <h2 id="notes">
      Notes
      <button class="btn bare" @click="writing = { note: null }">Write a note…</button>
    </h2>
    <p v-if="error || refused" class="bad" role="alert">{{ error || refused }}</p>
    <p v-if="data && !open.length" class="mid">
      Nobody wrote anything down. What is known to go wrong stands here, and where it fails.
    </p>
    <ul>
      <li v-for="note in open" :key="note.id" :class="{ trouble: note.kind === 'TROUBLE' }">
        <p>
          <b v-if="note.kind === 'TROUBLE'">Known trouble: </b>
          <NoteWords :words="note.words" :link="note.link" />
        </p>
        <NotePictures :bridge="id" :note="note" @changed="load" />
        <p class="mid acts">
          {{ dayAndTime(note.writtenAt, now, zone) }} by a {{ note.writtenBy }}
          <button class="btn bare" @click="writing = { note }">Write anew…</button>
          <button class="btn bare" @click="picturing = note">Add a picture…</button>
          <button class="btn bare" :disabled="busy" @click="end(note, true)">It is over</button>
        </p>
        <details v-if="note.before.length">
          <summary>{{ counted(note.before.length, 'time') }} written anew</summary>
          <p v-for="(one, i) in note.before" :key="i" class="mid">
            {{ dayAndTime(one.writtenAt, now, zone) }}:
            <NoteWords :words="one.words" :link="one.link" />
          </p>
        </details>
      </li>
    </ul>
    <details v-if="over.length">
      <summary>
        {{ counted(over.length, 'note') }} that {{ over.length === 1 ? 'is' : 'are' }} over
      </summary>
      <p v-for="note in over" :key="note.id" class="mid">
        over since {{ dayAndTime(note.overSince!, now, zone) }}:
        <NoteWords :words="note.words" :link="note.link" />
        <button class="btn bare" :disabled="busy" @click="end(note, false)">It holds again</button>
      </p>
    </details>
    <PictureDialog
      v-if="picturing"
      :bridge="id"
      :note="picturing.id"
      @close="picturing = null"
      @added="pictured"
    />
    <NoteDialog
      v-if="writing"
      :bridge="id"
      :note="writing.note"
      @close="writing = null"
      @kept="kept"
    />
  </div>
</template>

<style scoped>
h2 {
  margin-top: 18px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  margin: 0 0 8px;
  padding: 0 0 0 10px;
  border-left: 3px solid var(--line-2);
}
li.trouble {
  border-left-color: var(--held);
}
p {
  margin: 0 0 4px;
}
.acts .btn {
  margin-left: 8px;
}
</style>
