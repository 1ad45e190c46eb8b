<script setup lang="ts">
import { useActing } from '@/shared/composables/acting'
import { addressOf, takePictureAway, type Note } from './api'

/** The pictures of a note, each opened in full by itself. */
const props = defineProps<{ bridge: string; note: Note; fixed?: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const { busy, error, during } = useActing()
const at = (picture: number) => addressOf(props.bridge, props.note.id, picture)

async function takeAway(picture: number) {
  if (await during(() => takePictureAway(props.bridge, props.note.id, picture))) emit('changed')
}
</script>

<template>
  <p v-if="error" class="bad" role="alert">{{ error }}</p>
  <div v-if="note.pictures.length" class="pictures">
    <figure v-for="one in note.pictures" :key="one.id">
      <a :href="at(one.id)" target="_blank" rel="noopener"
        ><img :src="at(one.id)" :alt="one.shows" loading="lazy"
      /></a>
      <figcaption class="mid">
        {{ one.shows }}
        <button
          v-if="!fixed"
          class="btn bare"
          :disabled="busy"
          :aria-label="`Take away the picture “${one.shows}”`"
          @click="takeAway(one.id)"
        >
          Take away
        </button>
      </figcaption>
    </figure>
  </div>
</template>

<style scoped>
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  margin: 6px 0;
}
figure {
  margin: 0;
  max-width: 220px;
}
img {
  display: block;
  max-width: 100%;
  max-height: 120px;
  border: 1px solid var(--line-2);
  border-radius: 4px;
}
figcaption {
  font-size: 13px;
}
</style>
