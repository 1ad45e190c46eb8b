<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { LeavingField } from './api'
import { likeliest, placesFor, put, SORTS } from './parts'
import { useShelf } from './shelf'
import type { Group } from './tree'

/** A part that was taken along from another bridge, and where to put it. */
const props = defineProps<{ doc: Group; leaving: LeavingField[] }>()
const emit = defineEmits<{ change: [doc: Group] }>()
const { part, take } = useShelf()

const here = computed(() => String(props.doc.name ?? ''))
const places = computed(() => (part.value ? placesFor(part.value, props.doc, props.leaving) : []))
const needsPlace = computed(() => part.value?.kind === 'rule' || part.value?.kind === 'steps')
const field = ref('')
watch(
  [part, places],
  () => {
    if (!part.value || places.value.some((one) => one.key === field.value)) return
    field.value = likeliest(part.value, places.value)
  },
  { immediate: true },
)

function putIn() {
  if (part.value) emit('change', put(part.value, props.doc, field.value))
}
</script>

<template>
  <form v-if="part" class="at-hand" @submit.prevent="putIn">
    <span
      >At hand: {{ SORTS[part.kind] }} <b>{{ part.name }}</b><template
        v-if="part.of && part.of !== here"
      >
        of <b>{{ part.of }}</b></template
      ></span
    >
    <label v-if="needsPlace"
      ><span class="mid">into</span>
      <select v-model="field" class="in">
        <option v-for="one in places" :key="one.key" :value="one.key">{{ one.name }}</option>
      </select></label
    >
    <button class="btn" :disabled="needsPlace && !field">Put it in</button>
    <button type="button" class="btn bare" @click="take(null)">Let it go</button>
  </form>
</template>

<style scoped>
.at-hand {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
  padding: 6px 10px;
  margin-bottom: 8px;
  background: var(--tide);
  border: 1px solid var(--tide-line);
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
