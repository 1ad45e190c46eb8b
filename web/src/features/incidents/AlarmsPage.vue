<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { readAlarms, saveAlarms, tryAlarms, type Tried } from './api'

/** Who is told of incidents, and how: a document, as bridges are. */
const text = ref('')
const kept = ref('')
const read = ref(false)
const saved = ref(false)
const tried = ref<Tried[]>([])
const { busy, error, during } = useActing()

const BEGINNING = `quiet: PT15M
ways:
  - in: garden-chat/messages
    fields: { channel: works, text: "{headline}\\n\\n{text}" }
`

onMounted(() =>
  during(async () => {
    kept.value = text.value = (await readAlarms()).document
    read.value = true
  }),
)
async function save() {
  saved.value = await during(async () => {
    kept.value = text.value = (await saveAlarms(text.value)).document
  })
}
async function tryAll() {
  tried.value = []
  await during(async () => {
    tried.value = await tryAlarms()
  })
}
</script>

<template>
  <div class="alarms">
    <h1>Who is told of incidents</h1>
    <p>
      One message for each incident that opens or comes back, once it is a minute old, by the first
      way that works. What opens within the quiet time after a message is told together in the next.
      The slots are <code>{headline}</code>, in a line, and <code>{text}</code>, in full with a
      link.
    </p>
    <form v-if="read" @submit.prevent="save">
      <label for="plan">The document, with ways in the order in which they are tried</label>
      <textarea
        id="plan"
        v-model="text"
        class="in mono"
        rows="16"
        spellcheck="false"
        maxlength="20000"
        @input="saved = false"
      ></textarea>
      <p v-if="!text.trim()" class="mid">
        Nobody is told; incidents stand on Watch alone.
        <button class="btn bare" type="button" @click="text = BEGINNING">Begin with this</button>
      </p>
      <p v-if="saved" role="status">Kept. Try it, so that you know that it arrives.</p>
      <div class="acts">
        <button class="btn main" type="submit" :disabled="busy || text === kept">Keep it</button>
        <button
          class="btn"
          type="button"
          :disabled="busy || text !== kept || !kept.trim()"
          @click="tryAll"
        >
          Send a trial by every way
        </button>
      </div>
    </form>
    <p v-if="error" class="note bad" role="alert">{{ error }}</p>
    <ul v-if="tried.length" aria-label="What the trial came to">
      <li v-for="one in tried" :key="one.way" :class="{ bad: one.problem }">
        <b>{{ one.way }}</b>: {{ one.problem || 'the message was taken; see whether it arrived' }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.alarms {
  padding: 16px 20px;
  max-width: 860px;
}
h1 {
  margin-bottom: 8px;
}
form {
  margin-top: 12px;
}
label {
  display: block;
  font-weight: 650;
  margin-bottom: 4px;
}
textarea {
  width: 100%;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
</style>
