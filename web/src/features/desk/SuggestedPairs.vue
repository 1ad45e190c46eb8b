<script setup lang="ts">
import { ref, watch } from 'vue'
import { readSuggestions, type Suggestion } from './api'
import type { Tree } from './tree'

/** Likely field pairs, offered and never taken by themselves. */
const props = defineProps<{ id: string; text: string; open: string[] }>()
const emit = defineEmits<{ take: [field: string, rule: Tree] }>()
const offered = ref<Suggestion[]>([])
const error = ref('')
let asked = ''

async function ask() {
  // Only another set of fields without a rule makes other pairs worth offering.
  const about = props.open.join(' ')
  if (about === asked || !about) return
  asked = about
  try {
    offered.value = await readSuggestions(props.id, props.text)
    error.value = ''
  } catch (e) {
    error.value = (e as Error).message
  }
}
watch(() => props.open, ask, { immediate: true })

const still = () => offered.value.filter((one) => props.open.includes(one.field))

function take(one: Suggestion) {
  emit('take', one.field, JSON.parse(one.rule) as Tree)
}
</script>

<template>
  <div v-if="still().length || error" class="offered">
    <p v-if="error" class="bad">{{ error }}</p>
    <p v-for="one in still()" :key="one.field + one.source" class="pair">
      <span
        ><span class="mid">Perhaps</span> <b>{{ one.fieldName }}</b> <span class="mid">is </span
        ><b>{{ one.source }}</b
        ><span v-if="one.steps.length" class="mid">, {{ one.steps.join(', ') }}</span
        ><span class="dim">: {{ one.because }}</span></span
      >
      <button class="btn bare" @click="take(one)">Take it</button>
    </p>
  </div>
</template>

<style scoped>
.offered {
  padding: 6px 4px;
}
.pair {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  align-items: baseline;
  padding: 2px 0;
}
.pair .btn {
  padding-block: 0;
}
</style>
