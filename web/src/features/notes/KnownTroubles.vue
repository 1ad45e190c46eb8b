<script setup lang="ts">
import { computed, watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import NotePictures from './NotePictures.vue'
import NoteWords from './NoteWords.vue'
import { readNotes } from './api'

/** What is known to go wrong at a bridge, where something of it went wrong. */
const props = defineProps<{ bridge: string; name?: string }>()
const { data, load } = useResource(() => readNotes(props.bridge))
watch(
  () => props.bridge,
  () => void load(),
  { immediate: true },
)
const troubles = computed(() =>
  (data.value ?? []).filter((note) => note.kind === 'TROUBLE' && !note.overSince),
)
</script>

<template>
  <div v-for="note in troubles" :key="note.id" class="note held" role="note">
    Known trouble of {{ name ?? 'this bridge' }}:
    <NoteWords :words="note.words" :link="note.link" />
    <NotePictures :bridge="bridge" :note="note" fixed />
  </div>
</template>
