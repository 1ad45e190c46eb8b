<script setup lang="ts">
import { computed, ref } from 'vue'
import type { OfferedCollection } from './connect'

/** Which of many collections are drafted, found by typing. */
const props = defineProps<{ offered: OfferedCollection[]; busy: boolean }>()
const emit = defineEmits<{ choose: [ids: string[]] }>()
const search = ref('')
const chosen = ref<string[]>([])

const found = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return props.offered.filter((one) => {
    const text = `${one.id} ${one.path}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
})
const hidden = computed(
  () => chosen.value.filter((id) => !found.value.some((one) => one.id === id)).length,
)

/** Enter in the search ticks the one that is left. */
function only() {
  const one = found.value[0]
  if (found.value.length === 1 && one && !chosen.value.includes(one.id)) {
    chosen.value.push(one.id)
    search.value = ''
  }
}
</script>

<template>
  <section class="choice" aria-labelledby="which">
    <h2 id="which">It describes {{ offered.length }} collections. Which do you need?</h2>
    <input
      v-model="search"
      class="in"
      type="search"
      aria-label="Search the collections"
      placeholder="part of a name or a path"
      @keydown.enter.prevent="only"
    />
    <ul>
      <li v-for="one in found" :key="one.id">
        <label>
          <input v-model="chosen" type="checkbox" :value="one.id" />
          <b>{{ one.id }}</b>
          <span class="mono path">{{ one.path }}</span>
          <span class="mid">{{ one.can }}</span>
        </label>
      </li>
    </ul>
    <p v-if="!found.length" class="mid">No name and no path has these words.</p>
    <p class="end">
      <button
        class="btn main"
        type="button"
        :disabled="busy || !chosen.length"
        @click="emit('choose', chosen)"
      >
        {{ busy ? 'Reading…' : `Draft ${chosen.length || 'those chosen'}` }}
      </button>
      <span v-if="hidden" class="mid">{{ hidden }} of them not shown by this search</span>
    </p>
  </section>
</template>

<style scoped>
.choice {
  display: grid;
  gap: 8px;
}
h2 {
  font-size: 14px;
  margin: 6px 0 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 4px 0;
  max-height: 380px;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 4px;
}
label {
  display: grid;
  grid-template-columns: 20px 220px 1fr 210px;
  gap: 8px;
  align-items: baseline;
  padding: 3px 10px;
}
b,
.path {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.end {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 0;
}
</style>
