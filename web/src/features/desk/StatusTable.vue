<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { StatusGrid } from './api'
import { arrowsOf, isStated, meaning, withArrows, type Arrows } from './statusTable'
import type { Group } from './tree'

/** Statuses of one side down, those of the other across; each cell says which way it maps. */
const props = defineProps<{ grid: StatusGrid; doc: Group }>()
const emit = defineEmits<{ change: [document: Group] }>()
const row = ref(0)
const column = ref(0)
const body = useTemplateRef<HTMLElement>('body')

const lefts = computed(() => props.grid.left.statuses)
const rights = computed(() => props.grid.right.statuses)
const left = computed(() => lefts.value[row.value]?.key ?? '')
const right = computed(() => rights.value[column.value]?.key ?? '')
const now = computed(() => arrowsOf(props.grid, left.value, right.value))

const ways = computed(() => [
  { key: 'r', word: 'To the right', sign: '→', can: props.grid.left.goes, to: arrows(true, false) },
  { key: 'l', word: 'To the left', sign: '←', can: props.grid.right.goes, to: arrows(false, true) },
  {
    key: 'b',
    word: 'Both ways',
    sign: '↔',
    can: props.grid.left.goes && props.grid.right.goes,
    to: arrows(true, true),
  },
  { key: 'n', word: 'Neither', sign: '', can: true, to: arrows(false, false) },
])

function arrows(toRight: boolean, toLeft: boolean): Arrows {
  return { right: toRight, left: toLeft }
}

function sign(l: string, r: string) {
  const has = arrowsOf(props.grid, l, r)
  if (has.left && has.right) return '↔'
  return has.right ? '→' : has.left ? '←' : ''
}

/** Stands there only because all others do. */
function isOfOthers(l: string, r: string) {
  const has = arrowsOf(props.grid, l, r)
  return (
    (has.right || has.left) &&
    !(has.right && isStated(props.doc, props.grid.field, 'to-right', l)) &&
    !(has.left && isStated(props.doc, props.grid.field, 'to-left', r))
  )
}

function set(wanted: Arrows) {
  const made = withArrows(props.doc, props.grid, left.value, right.value, wanted)
  if (made !== props.doc) emit('change', made)
}

async function go(down: number, over: number) {
  row.value = Math.min(Math.max(row.value + down, 0), lefts.value.length - 1)
  column.value = Math.min(Math.max(column.value + over, 0), rights.value.length - 1)
  await nextTick()
  body.value?.querySelector<HTMLElement>('td[tabindex="0"]')?.focus()
}

// A status that only the document names goes with its last line: some cell can still be reached.
watch([lefts, rights], ([down, over]) => {
  row.value = Math.max(Math.min(row.value, down.length - 1), 0)
  column.value = Math.max(Math.min(column.value, over.length - 1), 0)
})

const moves: Record<string, [number, number]> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowRight: [0, 1],
  ArrowLeft: [0, -1],
}

function press(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const move = moves[event.key]
  const key = ['Delete', 'Backspace'].includes(event.key) ? 'n' : event.key.toLowerCase()
  const way = ways.value.find((any) => any.key === key && any.can)
  if (!move && !way) return
  event.preventDefault()
  if (move) void go(...move)
  else if (way) set(way.to)
}
</script>

<template>
  <div class="around">
    <table role="grid" :aria-label="`${grid.left.field} and ${grid.right.field}`">
      <thead>
        <tr>
          <th class="side corner" scope="col" rowspan="2">
            {{ grid.left.of }}: {{ grid.left.field }}
          </th>
          <th class="side" scope="colgroup" :colspan="rights.length">
            {{ grid.right.of }}: {{ grid.right.field }}
          </th>
        </tr>
        <tr>
          <th v-for="(one, c) in rights" :key="one.key" scope="col" :class="{ at: c === column }">
            {{ one.name }}
          </th>
        </tr>
      </thead>
      <tbody ref="body" @keydown="press">
        <tr v-for="(one, r) in lefts" :key="one.key">
          <th scope="row" :class="{ at: r === row }">{{ one.name }}</th>
          <td
            v-for="(other, c) in rights"
            :key="other.key"
            role="gridcell"
            :tabindex="r === row && c === column ? 0 : -1"
            :aria-selected="r === row && c === column"
            :aria-label="meaning(grid, one.key, other.key)"
            :class="{ agree: sign(one.key, other.key), others: isOfOthers(one.key, other.key) }"
            :title="
              isOfOthers(one.key, other.key) ? 'as all others, which are stated together' : ''
            "
            @click="((row = r), (column = c))"
            @focus="((row = r), (column = c))"
          >
            {{ sign(one.key, other.key) }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <p class="acts">
    <button
      v-for="way in ways"
      :key="way.key"
      class="btn"
      :disabled="!way.can"
      :aria-pressed="now.right === way.to.right && now.left === way.to.left"
      @click="set(way.to)"
    >
      {{ way.sign }} {{ way.word }} <kbd>{{ way.key.toUpperCase() }}</kbd>
    </button>
  </p>
  <p class="mid" aria-live="polite">{{ meaning(grid, left, right) }}.</p>
</template>

<style scoped>
.around {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th {
  font-weight: 400;
  text-align: left;
  padding: 4px 10px;
  white-space: nowrap;
}
thead th:not(.side) {
  text-align: center;
}
.side {
  color: var(--ink-2);
  font-size: 13px;
}
.corner {
  vertical-align: bottom;
}
th.at {
  font-weight: 700;
}
tbody td {
  min-width: 76px;
  height: 34px;
  border: 1px solid var(--line-2);
  text-align: center;
  font-size: 16px;
  background: var(--panel);
  cursor: pointer;
}
tbody td.agree {
  background: var(--kelp-2);
  color: var(--kelp);
  font-weight: 700;
}
tbody td.others {
  background: var(--panel);
  color: var(--ink-3);
}
tbody td[aria-selected='true'] {
  outline: 2px solid var(--kelp);
  outline-offset: -2px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 12px 0 6px;
}
.btn[aria-pressed='true'] {
  border-color: var(--kelp);
  background: var(--kelp-2);
}
</style>
