<script setup lang="ts">
import { ref } from 'vue'
import { BEGINNINGS } from './beginnings'
import CollectionChoice from './CollectionChoice.vue'
import { readDraft, type DraftWish, type OfferedCollection, type RemarkView } from './connect'

/** Where a draft begins: an OpenAPI description that is published, pasted or in a file. */
const emit = defineEmits<{ draft: [document: string, remarks: RemarkView[]] }>()
const address = ref('')
const pasted = ref('')
const busy = ref(false)
const error = ref('')
/** What was asked, and what it could give, where that is too much at once. */
const asked = ref<DraftWish>({})
const offered = ref<OfferedCollection[]>([])

async function draft(wish: DraftWish) {
  busy.value = true
  error.value = ''
  try {
    const drafted = await readDraft(wish)
    asked.value = wish
    offered.value = drafted.document ? [] : drafted.offered
    if (drafted.document) emit('draft', drafted.document, drafted.remarks)
  } catch (e) {
    error.value = (e as Error).message
  } finally {
    busy.value = false
  }
}

async function fromFile(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) await draft({ description: await file.text() })
}
</script>

<template>
  <section class="source" aria-label="Where the draft begins">
    <form @submit.prevent="draft({ address })">
      <label for="openapi">Address of its OpenAPI description</label>
      <div class="line">
        <input
          id="openapi"
          v-model="address"
          class="in mono"
          required
          autofocus
          placeholder="https://ledger.garden.example/openapi.json"
        />
        <button class="btn main" :disabled="busy">{{ busy ? 'Reading…' : 'Draft' }}</button>
        <label class="btn file"
          >Take from a file<input type="file" accept=".json,.yaml,.yml" @change="fromFile"
        /></label>
      </div>
    </form>
    <CollectionChoice
      v-if="offered.length"
      :offered="offered"
      :busy="busy"
      @choose="draft({ ...asked, collections: $event })"
    />
    <details v-if="!offered.length">
      <summary>Or paste it</summary>
      <textarea
        v-model="pasted"
        class="in mono"
        rows="8"
        spellcheck="false"
        aria-label="The OpenAPI description"
      ></textarea>
      <button class="btn" :disabled="busy || !pasted" @click="draft({ description: pasted })">
        Draft from this
      </button>
    </details>
    <section v-if="!offered.length" aria-labelledby="by-hand">
      <h2 id="by-hand">Or begin by hand</h2>
      <ul>
        <li v-for="one in BEGINNINGS" :key="one.title">
          <button class="btn" @click="emit('draft', one.document, [])">{{ one.title }}</button>
          <span class="mid">{{ one.about }}</span>
        </li>
      </ul>
    </section>
    <p v-if="error" class="note bad" role="alert">{{ error }}</p>
  </section>
</template>

<style scoped>
.source {
  display: grid;
  gap: 10px;
  max-width: 900px;
}
.line {
  display: flex;
  gap: 8px;
  margin-top: 4px;
}
.line .in {
  flex: 1;
}
h2 {
  font-size: 14px;
  margin: 12px 0 6px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 8px;
}
li {
  display: grid;
  grid-template-columns: 230px 1fr;
  gap: 12px;
  align-items: center;
}
details textarea {
  width: 100%;
  margin: 6px 0;
}
summary {
  cursor: pointer;
  color: var(--kelp);
}
</style>
