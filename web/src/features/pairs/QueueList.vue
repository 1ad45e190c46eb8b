<script setup lang="ts" generic="T extends { id: number }">
import { nextTick, useTemplateRef, watch } from 'vue'

/** What waits for a person: one is looked at, the others are a key away. */
const props = defineProps<{ items: T[]; chosen: number | null; keys: string[] }>()
const emit = defineEmits<{ choose: [id: number]; answer: [key: string] }>()
const list = useTemplateRef<HTMLUListElement>('list')

function pressed(event: KeyboardEvent) {
  if (event.altKey || event.ctrlKey || event.metaKey) return
  const at = props.items.findIndex((one) => one.id === props.chosen)
  const to: Record<string, T | undefined> = {
    ArrowDown: props.items[at + 1],
    ArrowUp: props.items[at - 1],
    Home: props.items[0],
    End: props.items.at(-1),
  }
  const key = event.key.toLowerCase()
  if (event.key in to) {
    if (to[event.key]) emit('choose', to[event.key]!.id)
  } else if (props.keys.includes(key)) {
    emit('answer', key)
  } else {
    return
  }
  event.preventDefault()
}

// The keyboard stays on the one that is looked at, wherever it moves to.
watch(
  () => props.chosen,
  async () => {
    const within = list.value?.contains(document.activeElement)
    await nextTick()
    if (within) list.value?.querySelector<HTMLElement>('[aria-current="true"]')?.focus()
  },
)
</script>

<template>
  <ul ref="list" @keydown="pressed">
    <li v-for="one in items" :key="one.id">
      <button
        type="button"
        :aria-current="one.id === chosen"
        :tabindex="one.id === chosen ? 0 : -1"
        @click="emit('choose', one.id)"
      >
        <slot :one="one" />
      </button>
    </li>
  </ul>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 1px solid var(--line);
}
li {
  border-bottom: 1px solid var(--line);
}
button {
  display: block;
  width: 100%;
  padding: 7px 12px;
  border: 0;
  border-left: 3px solid transparent;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
button:hover {
  background: var(--panel);
}
button[aria-current='true'] {
  border-left-color: var(--kelp);
  background: var(--panel);
}
button :deep(.title) {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
button :deep(small) {
  display: block;
}
button :deep(small b) {
  float: right;
  font-weight: 600;
}
</style>
