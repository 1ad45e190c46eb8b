<script setup lang="ts">
import { watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import CircleList from './CircleList.vue'
import { readLoops } from './api'

/** The circles that a live bridge is in; nothing where it is in none. */
const props = defineProps<{ id: string }>()
const { data, error, load } = useResource(() => readLoops(props.id))
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)
</script>

<template>
  <p v-if="error" class="bad" role="alert">Its circles could not be read: {{ error }}</p>
  <template v-if="data?.circles.length">
    <h2 class="back">Comes back to it</h2>
    <CircleList :circles="data.circles" />
    <template v-if="data.saidYes.length">
      <p class="mid">A person said yes to this when it went live:</p>
      <ul>
        <li v-for="one in data.saidYes" :key="one">{{ one }}</li>
      </ul>
    </template>
  </template>
</template>

<style scoped>
.back {
  margin-top: 20px;
}
</style>
