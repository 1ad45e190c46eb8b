<script setup lang="ts">
import { nextTick, useTemplateRef, watch } from 'vue'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import type { Possible } from './api'

/** What waits for a person: one is looked at, the others are a key away. */
const props = defineProps<{ items: Possible[]; chosen: number | null }>()
const emit = defineEmits<{ choose: [id: number]; answer: [same: boolean] }>()
const { now, zone } = useSession()
const list = useTemplateRef<HTMLUListElement>('list')

function keys(event: KeyboardEvent) {
  if (event.altKey || event.ctrlKey || event.metaKey) return
  const at = props.items.findIndex((one) => one.id === props.chosen)
  const to: Record<string, Possible | undefined> = {
    ArrowDown: props.items[at + 1],
    ArrowUp: props.items[at - 1],
    Home: props.items[0],
    End: props.items.at(-1),
  }
  const key = event.key.toLowerCase()
  if (event.key in to) {
    if (to[event.key]) emit('choose', to[event.key]!.id)
  } else if (key === 's' || key === 'd') {
    emit('answer', key === 's')
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
  <ul ref="list" @keydown="keys">
    <li v-for="one in items" :key="one.id">
      <button
        type="button"
        :aria-current="one.id === chosen"
        :tabindex="one.id === chosen ? 0 : -1"
        @click="emit('choose', one.id)"
      >
        <span class="title">{{ one.title }}</span>
        <small class="title">{{ one.otherTitle }}</small>
        <small class="mid">
          {{ one.place }}, {{ dayAndTime(one.foundAt, now, zone) }}
          <b>{{ Math.floor(one.score * 100) }} % alike</b>
        </small>
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
.title {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
small {
  display: block;
}
small b {
  float: right;
  font-weight: 600;
}
</style>
