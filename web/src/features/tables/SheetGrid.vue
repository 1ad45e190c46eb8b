<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { cellsOf } from '@/shared/format/csv'
import {
  columnsOf,
  emptyRow,
  pasted,
  renamed,
  widthOf,
  withCell,
  withColumn,
  withoutColumn,
  withType,
  type Sheet,
} from './sheet'

/** The rows of a table, typed and pasted cell by cell. */
const sheet = defineModel<Sheet>({ required: true })
const props = defineProps<{
  /** What people call the keys of each column, by its name. */
  names: Record<string, Record<string, string>>
}>()
const emit = defineEmits<{ said: [words: string] }>()
const only = ref('')
const shown = ref(200)
const grid = useTemplateRef<HTMLElement>('grid')

const TYPES = ['text', 'choice', 'person', 'number', 'flag', 'day', 'moment', 'link']

const columns = computed(() => columnsOf(sheet.value))
const keyCount = computed(() => sheet.value.keys.length)
const namesOf = (column: number) => props.names[columns.value[column] ?? '']
const nameOf = (column: number, key: string) => {
  const name = namesOf(column)?.[key] ?? ''
  return name.toLowerCase() === key.toLowerCase() ? '' : name
}

/** How many letters the longest cell of each column has, so that names stand below each other. */
const widest = computed(() =>
  columns.value.map((_, column) =>
    Math.min(
      60,
      Math.max(0, ...sheet.value.rows.slice(0, 2000).map((row) => row[column]?.length ?? 0)),
    ),
  ),
)
/** The rows that hold what is looked for, with their places in the sheet. */
const fitting = computed(() => {
  const word = only.value.trim().toLowerCase()
  return sheet.value.rows
    .map((row, place) => ({ row, place }))
    .filter(({ row }) => !word || row.some((cell) => cell.toLowerCase().includes(word)))
})

function paste(event: ClipboardEvent, row: number, column: number) {
  const cells = cellsOf(event.clipboardData?.getData('text/plain') ?? '')
  if (cells.length < 2 && (cells[0]?.length ?? 0) < 2) return
  event.preventDefault()
  sheet.value = pasted(sheet.value, row, column, cells)
  emit('said', `${cells.length} rows were pasted.`)
}

function focus(row: number, column: number) {
  void nextTick(() =>
    grid.value?.querySelector<HTMLInputElement>(`[data-cell="${row}/${column}"]`)?.focus(),
  )
}

/** Enter and the arrows go up and down a column; Enter below the last row begins another. */
function walk(event: KeyboardEvent, at: number, column: number) {
  const by = { Enter: event.shiftKey ? -1 : 1, ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (!by || event.isComposing) return
  event.preventDefault()
  const next = fitting.value[at + by]
  if (next) focus(next.place, column)
  else if (event.key === 'Enter' && by === 1) addRow()
}

function addRow(keys: string[] = []) {
  const row = emptyRow(sheet.value).map((cell, i) => keys[i] ?? cell)
  const rows = [...sheet.value.rows, row]
  sheet.value = { ...sheet.value, rows }
  only.value = ''
  shown.value = Math.max(shown.value, rows.length)
  focus(rows.length - 1, keys.length ? keyCount.value : 0)
}

function addColumn() {
  let free = 'column'
  for (let i = 2; columns.value.includes(free); i++) free = `column ${i}`
  sheet.value = withColumn(sheet.value, free, 'text')
}
const value = (event: Event) => (event.target as HTMLInputElement).value

defineExpose({ addRow })
</script>

<template>
  <div class="tools">
    <input
      v-model="only"
      class="in"
      aria-label="Show only rows with"
      placeholder="Show only rows with…"
    />
    <span class="mid">{{ fitting.length }} of {{ sheet.rows.length }} rows</span>
    <span class="dim"
      >paste cells anywhere; <kbd>Enter</kbd> <kbd>↓</kbd> <kbd>↑</kbd> walk a column</span
    >
    <button class="btn" @click="addColumn">Add a column</button>
  </div>
  <div ref="grid" class="scroll">
    <table class="rows">
      <thead>
        <tr>
          <th v-for="(column, k) in columns" :key="k" scope="col">
            <input
              class="in"
              :aria-label="`Name of column ${k + 1}`"
              :value="column"
              @change="sheet = renamed(sheet, k, value($event))"
            />
            <span v-if="k < keyCount" class="dim kind">key</span>
            <select
              v-else
              class="in kind"
              :aria-label="`What ${column} holds`"
              :value="sheet.values[k - keyCount]?.type"
              @change="sheet = withType(sheet, k, value($event))"
            >
              <option v-for="type in TYPES" :key="type" :value="type">{{ type }}</option>
            </select>
            <button
              v-if="k >= keyCount && sheet.values.length > 1"
              class="btn bare"
              :aria-label="`Remove the column ${column}`"
              @click="sheet = withoutColumn(sheet, k)"
            >
              ✕
            </button>
          </th>
          <th scope="col" class="act"><span class="unseen">Acts</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="({ row, place }, i) in fitting.slice(0, shown)" :key="place">
          <td v-for="k in widthOf(sheet)" :key="k" class="holds">
            <input
              class="in cell"
              :class="{ key: k <= keyCount }"
              :data-cell="`${place}/${k - 1}`"
              :aria-label="`${columns[k - 1]} of row ${place + 1}`"
              :value="row[k - 1]"
              :list="namesOf(k - 1) ? `names-${k - 1}` : undefined"
              @input="sheet = withCell(sheet, place, k - 1, value($event))"
              @keydown="walk($event, i, k - 1)"
              @paste="paste($event, place, k - 1)"
            />
            <span
              v-if="nameOf(k - 1, row[k - 1] ?? '')"
              class="mid name"
              :style="{ left: `calc(${widest[k - 1] ?? 0}ch + 28px)` }"
              >{{ nameOf(k - 1, row[k - 1] ?? '') }}</span
            >
          </td>
          <td class="act">
            <button
              class="btn bare"
              :aria-label="`Remove row ${place + 1}`"
              @click="sheet = { ...sheet, rows: sheet.rows.filter((_, at) => at !== place) }"
            >
              ✕
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <template v-for="(_, k) in columns" :key="k">
      <datalist v-if="namesOf(k)" :id="`names-${k}`">
        <option v-for="(label, key) in namesOf(k)" :key="key" :value="key">{{ label }}</option>
      </datalist>
    </template>
    <button v-if="fitting.length > shown" class="btn bare" @click="shown += 500">
      Show more of {{ fitting.length }} rows
    </button>
    <button class="btn bare" @click="addRow()">Add a row</button>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
  padding-bottom: 8px;
}
.scroll {
  overflow: auto;
  flex: 1;
}
thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 1;
}
thead .in {
  font-weight: 650;
  width: 62%;
}
thead .kind {
  width: auto;
  font-weight: 400;
  margin-left: 6px;
}
td {
  padding: 0 !important;
}
.cell {
  width: 100%;
  border-color: transparent;
  background: transparent;
  border-radius: 0;
}
.holds {
  position: relative;
}
.holds .name {
  position: absolute;
  right: 34px;
  text-align: left;
  top: 50%;
  transform: translateY(-50%);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  pointer-events: none;
}
.cell.key {
  font-weight: 650;
}
.cell:hover {
  border-color: var(--line-2);
}
.cell:focus {
  background: var(--panel);
}
.act {
  width: 40px;
  text-align: right;
}
</style>
