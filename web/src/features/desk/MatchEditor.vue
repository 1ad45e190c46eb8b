<script setup lang="ts">
import { computed } from 'vue'
import type { ArrivingGroup, SampleView } from './api'
import AddBy from './AddBy.vue'

/** The match key: what makes two events be about the same thing, and which samples would be. */
const props = defineProps<{ match: string[]; arriving: ArrivingGroup[]; samples: SampleView[] }>()
const emit = defineEmits<{ change: [match: string[]] }>()

const fields = computed(() => props.arriving.flatMap((group) => group.fields))
const nameOf = (address: string) =>
  fields.value.find((field) => field.address === address)?.name ?? address
const choices = computed(() =>
  fields.value
    .filter((field) => !props.match.includes(field.address))
    .map((field) => ({ key: field.address, words: field.name, hint: `= ${field.value}` })),
)

/** How many samples share their key with another. */
const shared = computed(() => {
  const times: Record<string, number> = {}
  for (const { key } of props.samples) if (key) times[key] = (times[key] ?? 0) + 1
  return Object.values(times).filter((count) => count > 1)
})
</script>

<template>
  <div class="match">
    <span class="mid">The same thing when</span>
    <span v-for="(address, i) in match" :key="address" class="part">
      <b>{{ nameOf(address) }}</b>
      {{ ' ' }}
      <button
        v-if="match.length > 1"
        class="btn bare"
        :aria-label="`Leave ${nameOf(address)} out of the match key`"
        @click="
          emit(
            'change',
            match.filter((_, k) => k !== i),
          )
        "
      >
        Remove
      </button>
      <template v-if="i < match.length - 1"> and</template>
    </span>
    <span class="mid">{{ match.length > 1 ? 'are the same' : 'is the same' }}</span>
    <AddBy
      down
      label="Add to the key"
      :choices="choices"
      @add="emit('change', [...match, $event])"
    />
    <span class="dim">{{
      shared.length
        ? `${shared.reduce((a, b) => a + b, 0)} of these events are about ${shared.length === 1 ? 'one thing' : `${shared.length} things`}`
        : 'no two of these events are about the same thing'
    }}</span>
  </div>
</template>

<style scoped>
.match {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  padding: 8px 4px 10px;
}
</style>
