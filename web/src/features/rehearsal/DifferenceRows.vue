<script setup lang="ts">
import { nextTick, ref } from 'vue'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, momentText } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import type { Difference } from './api'
import { BECOMES, fieldName, UNHEARD } from './words'

/** Events that come to something else, each opened beside what became of it then. */
const props = defineProps<{ items: Difference[]; names: Record<string, string> }>()
const { now, zone } = useSession()
const open = ref<number | null>(null)
const list = ref<HTMLElement>()

/** Up and down go from event to event, and take what is open along. */
async function walk(event: KeyboardEvent, at: number) {
  const to: Record<string, number> = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    Home: 0,
    End: props.items.length - 1,
  }
  const next = props.items[to[event.key] ?? -1]
  if (!next || event.altKey || event.ctrlKey || event.metaKey) return
  event.preventDefault()
  if (open.value !== null) open.value = next.number
  await nextTick()
  list.value?.querySelector<HTMLElement>(`[data-number="${next.number}"]`)?.focus()
}
const changed = (one: Difference) => one.then !== one.now
const fields = (one: Difference) =>
  one.fields.map((field) => fieldName(field.field, props.names)).join(', ')
const sentence = (words: string) => (/[.!?]$/.test(words) ? words : `${words}.`)
const shown = (text: string) => momentText(text, zone.value)
</script>

<template>
  <ul ref="list">
    <li v-for="(one, at) in items" :key="one.number" :class="{ open: open === one.number }">
      <button
        class="line"
        :data-number="one.number"
        :aria-expanded="open === one.number"
        @click="open = open === one.number ? null : one.number"
        @keydown="walk($event, at)"
      >
        <time>{{ dayAndTime(one.receivedAt, now, zone) }}</time>
        <span class="title">{{ one.title || one.record }}</span>
        <span v-if="changed(one)" class="change">
          <template v-if="one.then"
            ><VerdictMark :kind="one.then" />{{ BECOMES[one.then] }}</template
          >
          <template v-else>{{ UNHEARD }}</template>
          <span aria-hidden="true">→</span><span class="unseen">, now</span>
          <VerdictMark :kind="one.now" />{{ BECOMES[one.now] }}
        </span>
        <span v-if="one.fields.length" class="mid names">{{ fields(one) }}</span>
      </button>
      <div v-if="open === one.number" class="both">
        <p v-if="one.nowBecause"><b>Now:</b> {{ sentence(one.nowBecause) }}</p>
        <p v-if="one.thenBecause"><b>Then:</b> {{ sentence(one.thenBecause) }}</p>
        <table v-if="one.fields.length" class="rows">
          <thead>
            <tr>
              <th scope="col">Field</th>
              <th scope="col">Then</th>
              <th scope="col">Now</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="field in one.fields" :key="field.field">
              <th scope="row">{{ fieldName(field.field, names) }}</th>
              <td>
                <template v-if="field.then">{{ shown(field.then) }}</template>
                <span v-else class="dim">nothing</span>
              </td>
              <td>
                <template v-if="field.now">{{ shown(field.now) }}</template>
                <span v-else class="dim">nothing</span>
              </td>
            </tr>
          </tbody>
        </table>
        <p>
          <span class="mono">{{ one.record }}</span>
          <RouterLink v-if="one.trace" :to="{ name: 'trace', params: { id: one.trace } }"
            >The trace of then</RouterLink
          >
        </p>
      </div>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid var(--line);
}
.line {
  display: grid;
  grid-template-columns: 132px minmax(200px, 1fr) auto minmax(0, 220px);
  gap: 14px;
  align-items: center;
  width: 100%;
  padding: 6px 8px;
  border: 0;
  background: none;
  text-align: left;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
.line:hover,
.open .line {
  background: var(--panel);
}
time {
  color: var(--ink-2);
  white-space: nowrap;
}
.title,
.names {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.names {
  grid-column: 4;
}
.change {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  white-space: nowrap;
}
.both {
  padding: 4px 8px 10px 154px;
}
.both p {
  margin: 4px 0;
}
.both td {
  white-space: pre-line;
  overflow-wrap: anywhere;
  vertical-align: top;
  width: 42%;
}
.both a {
  text-decoration: underline;
  margin-left: 12px;
}
</style>
