<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { meet } from './api'

/** Two tasks that are there become a pair, though neither list shows that they are the same. */
const props = defineProps<{ bridge: string; left: string; right: string }>()
const { busy, error, during } = useActing()
const ofLeft = ref('')
const ofRight = ref('')
const trace = ref('')

async function pair() {
  trace.value = ''
  await during(async () => {
    trace.value = (await meet(props.bridge, ofLeft.value.trim(), ofRight.value.trim())).trace
    ofLeft.value = ''
    ofRight.value = ''
  })
}
</script>

<template>
  <section aria-labelledby="by-hand">
    <h2 id="by-hand">
      Pair two by hand
      <small>what stands for each other is kept, what only one has goes across</small>
    </h2>
    <form @submit.prevent="pair">
      <label>
        <span class="mid">Id of the task in {{ left }}</span>
        <input v-model="ofLeft" class="in" type="text" required autocomplete="off" />
      </label>
      <label>
        <span class="mid">Id of the task in {{ right }}</span>
        <input v-model="ofRight" class="in" type="text" required autocomplete="off" />
      </label>
      <button class="btn" type="submit" :disabled="busy">Pair them</button>
      <span v-if="trace" role="status">
        Both are looked at.
        <RouterLink :to="{ name: 'trace', params: { id: trace } }">See what came of it</RouterLink>
      </span>
      <span v-if="error" class="bad" role="alert">{{ error }}</span>
    </form>
  </section>
</template>

<style scoped>
section {
  padding: 0 20px 16px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: end;
}
label span {
  display: block;
}
a {
  text-decoration: underline;
}
</style>
