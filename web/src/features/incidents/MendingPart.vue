<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { useSession } from '@/shared/composables/session'
import { age, dayAndTime } from '@/shared/format/time'
import { leave, mend, note, type IncidentStory } from './api'

/** What happened about an incident, and who is at it. */
const props = defineProps<{ story: IncidentStory }>()
const emit = defineEmits<{ changed: [] }>()
const { now, zone } = useSession()
const { busy, error, during } = useActing()
const text = ref('')

async function act(doing: () => Promise<unknown>) {
  if (await during(doing)) {
    text.value = ''
    emit('changed')
  }
}
const id = () => props.story.incident.id
const begin = () => act(() => mend(id(), text.value.trim()))
const end = () => act(() => leave(id()))
const write = () => act(() => note(id(), text.value.trim()))
const who = (by: string) => (by === 'engine' ? '' : `a ${by}`)
</script>

<template>
  <h2 id="happened">What happened</h2>
  <p v-if="story.incident.mendingSince" class="mid">
    Being mended for {{ age(story.incident.mendingSince, now) }}.
  </p>
  <ol aria-labelledby="happened">
    <li v-for="(line, place) in story.lines" :key="place">
      <span class="mono dim">{{ dayAndTime(line.at, now, zone) }}</span>
      <span>{{ line.text }}</span>
      <span v-if="who(line.by)" class="dim">{{ who(line.by) }}</span>
    </li>
  </ol>
  <form @submit.prevent="write">
    <label>
      <span>A note for everyone who looks at this</span>
      <textarea v-model="text" class="in" rows="2" maxlength="900"></textarea>
    </label>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <div class="acts">
      <button class="btn" type="submit" :disabled="busy || !text.trim()">Write it down</button>
      <button
        v-if="story.incident.state === 'OPEN'"
        class="btn"
        type="button"
        :disabled="busy"
        @click="begin"
      >
        I am mending this
      </button>
      <button
        v-if="story.incident.state === 'MENDING'"
        class="btn"
        type="button"
        :disabled="busy"
        @click="end"
      >
        Nobody is mending it
      </button>
    </div>
  </form>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0 0 14px;
  padding: 0;
}
li {
  display: grid;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
  overflow-wrap: anywhere;
}
label span {
  display: block;
  font-weight: 650;
  margin-bottom: 4px;
}
textarea {
  width: 100%;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
</style>
