<script setup lang="ts">
import { watch } from 'vue'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { readRecallsOf } from './api'
import { came, STATES } from './words'

/** What was taken back of an incident; nothing where nothing was. */
const props = defineProps<{ incident: number }>()
const { data, error, load } = useResource(() => readRecallsOf(props.incident))
watch(
  () => props.incident,
  () => void load(),
  { immediate: true },
)
onChange(
  () => true,
  () => void load(),
)
</script>

<template>
  <p v-if="error" class="bad" role="alert">What was taken back could not be read: {{ error }}</p>
  <section v-if="data?.length" aria-labelledby="taken">
    <h2 id="taken">Taken back</h2>
    <p v-for="one in data" :key="one.id">
      <RouterLink :to="{ name: 'recall', params: { id: one.id } }">{{
        came(one.counts)
      }}</RouterLink>
      <small class="mid"> {{ STATES[one.state] }}</small>
    </p>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 20px;
}
</style>
