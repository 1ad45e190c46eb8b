<script setup lang="ts">
import { computed, ref } from 'vue'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { addSamples, type ArrivingGroup } from './api'
import { bodyFromFields } from './sampleBody'

/** Events to try the draft on: pasted, out of a file, or made by hand from the shape. */
const props = defineProps<{ id: string; text: string; arriving: ArrivingGroup[] }>()
const emit = defineEmits<{ added: [ids: string[]]; close: [] }>()

type Way = 'paste' | 'hand'
const way = ref<Way>('paste')
const pasted = ref('')
const refused = ref('')
const fields = computed(() => props.arriving[0]?.fields ?? [])
const typed = ref<Record<string, string>>(
  Object.fromEntries(fields.value.map((field) => [field.address, field.value])),
)

const wish = computed(() =>
  way.value === 'paste' ? pasted.value : bodyFromFields(fields.value, typed.value),
)

async function fromFile(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) pasted.value = await file.text()
}

async function add() {
  try {
    emit('added', (await addSamples(props.id, props.text, wish.value)).ids)
  } catch (e) {
    refused.value = (e as Error).message
  }
}
</script>

<template>
  <OverDialog title="Add events to try the rules on" @close="emit('close')">
    <p class="mid">They stay at this desk. Nothing is sent, and nobody counts them as received.</p>
    <fieldset class="ways">
      <legend class="unseen">How</legend>
      <label><input v-model="way" type="radio" value="paste" /> pasted or from a file</label>
      <label><input v-model="way" type="radio" value="hand" /> made by hand</label>
    </fieldset>
    <template v-if="way === 'paste'">
      <textarea
        v-model="pasted"
        class="in mono"
        rows="10"
        spellcheck="false"
        aria-label="The events: JSON, a JSON array, or NDJSON"
        placeholder="One JSON object, a JSON array, or one object a line; CloudEvents, or bodies as the source sends them"
      ></textarea>
      <label class="btn file"
        >Take from a file<input
          type="file"
          accept=".json,.ndjson,.jsonl,application/json"
          @change="fromFile"
      /></label>
    </template>
    <div v-else class="hand">
      <label v-for="field in fields" :key="field.address">
        <span>{{ field.name }}</span>
        <input v-model="typed[field.address]" class="in" />
        <span class="dim">{{ field.type }}</span>
      </label>
      <p class="dim">
        What is looked up is really looked up, so a made-up id finds nothing and says so.
      </p>
    </div>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Cancel</button>
      <button class="btn main" :disabled="!wish.trim()" @click="add">Add</button>
    </template>
  </OverDialog>
</template>

<style scoped>
.ways {
  border: 0;
  padding: 0;
  margin: 10px 0;
  display: flex;
  gap: 18px;
}
.hand {
  display: grid;
  gap: 6px;
}
.hand label {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr) 80px;
  gap: 10px;
  align-items: center;
}
.hand label span:first-child {
  text-align: right;
  color: var(--ink-2);
}
.file {
  margin-top: 8px;
}
</style>
