<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { cellsOf, csvOf } from '@/shared/format/csv'
import { useActing } from '@/shared/composables/acting'
import UsersAndChanges from './UsersAndChanges.vue'
import { keepTable, readAbout, readRows, readThen, removeTable, type TableAbout } from './api'
import {
  columnsOf,
  emptyRow,
  filled,
  pasted,
  renamed,
  told,
  widthOf,
  withCell,
  withColumn,
  withoutColumn,
  withType,
  type Sheet,
} from './sheet'

/** A reference table as a sheet: typed, pasted, or filled from a file. */
const props = defineProps<{ id: string }>()
const router = useRouter()
const about = ref<TableAbout | null>(null)
const name = ref('')
const ignoreCase = ref('false')
const notFound = ref('')
const use = ref('')
const sheet = ref<Sheet>({ keys: [], values: [], rows: [] })
const kept = ref('')
const unknown = ref<string[][]>([])
const only = ref('')
const shown = ref(200)
const said = ref('')
const { busy, error, during } = useActing()
const grid = useTemplateRef<HTMLElement>('grid')
const file = useTemplateRef<HTMLInputElement>('file')

const TYPES = ['text', 'choice', 'person', 'number', 'flag', 'day', 'moment', 'link']
const NOT_FOUND: Record<string, string> = {
  '': 'each rule says it',
  fail: 'it fails',
  empty: 'there is no value',
  'pass-through': 'the key itself is the value',
  use: 'a stated value is used',
}

/** What people call the keys of each column, by its name. */
const names = computed(() =>
  Object.fromEntries((about.value?.names ?? []).map((one) => [one.column, one.names])),
)
const namesOf = (column: number) => names.value[columns.value[column] ?? '']
const nameOf = (column: number, key: string) => {
  const name = namesOf(column)?.[key] ?? ''
  return name.toLowerCase() === key.toLowerCase() ? '' : name
}

const columns = computed(() => columnsOf(sheet.value))
/** How many letters the longest cell of each column has, so that names stand below each other. */
const widest = computed(() =>
  columns.value.map((_, column) =>
    Math.min(
      60,
      Math.max(0, ...sheet.value.rows.slice(0, 2000).map((row) => row[column]?.length ?? 0)),
    ),
  ),
)
const keyCount = computed(() => sheet.value.keys.length)
const state = () =>
  JSON.stringify([name.value, ignoreCase.value, notFound.value, use.value, sheet.value])
const changed = computed(() => state() !== kept.value)
/** The rows that hold what is looked for, with their places in the sheet. */
const fitting = computed(() => {
  const word = only.value.trim().toLowerCase()
  return sheet.value.rows
    .map((row, place) => ({ row, place }))
    .filter(({ row }) => !word || row.some((cell) => cell.toLowerCase().includes(word)))
})

async function load() {
  error.value = ''
  try {
    const [told, rows] = await Promise.all([readAbout(props.id), readRows(props.id)])
    about.value = told
    name.value = told.name
    ignoreCase.value = told.ignoreCase
    notFound.value = told.notFound
    use.value = told.use
    sheet.value = {
      keys: [...told.keys],
      values: told.values.map((one) => ({ ...one })),
      rows: rows.rows.map((row) => [...row]),
    }
    unknown.value = rows.unknown.map((one) => one.keys)
    kept.value = state()
  } catch (e) {
    error.value = (e as Error).message
  }
}
onMounted(load)

const keep = () =>
  during(async () => {
    said.value = ''
    await keepTable(props.id, {
      name: name.value.trim(),
      keys: sheet.value.keys,
      values: sheet.value.values,
      ignoreCase: ignoreCase.value,
      notFound: notFound.value,
      use: use.value,
      csv: csvOf(columns.value, told(sheet.value)),
      basedOn: about.value?.basedOn ?? 0,
    })
    await load()
    said.value = 'Kept. Bridges that use it see it from now on.'
  })

const remove = () =>
  during(async () => {
    said.value = ''
    await removeTable(props.id)
    await router.push({ name: 'tables' })
  })

const bringBack = (seq: number) =>
  during(async () => {
    said.value = ''
    const then = await readThen(props.id, seq)
    sheet.value = filled(sheet.value, cellsOf(then.csv))
    said.value = 'The rows of then are in the sheet; keep them if they are right.'
  })

async function fromFile() {
  const chosen = file.value?.files?.[0]
  if (!chosen) return
  const text = await chosen.text()
  sheet.value = filled(sheet.value, cellsOf(text.replace(/^\uFEFF/, '')))
  said.value = `${sheet.value.rows.length} rows of ${chosen.name} are in the sheet; keep them if they are right.`
  file.value!.value = ''
}

function paste(event: ClipboardEvent, row: number, column: number) {
  const cells = cellsOf(event.clipboardData?.getData('text/plain') ?? '')
  if (cells.length < 2 && (cells[0]?.length ?? 0) < 2) return
  event.preventDefault()
  sheet.value = pasted(sheet.value, row, column, cells)
  said.value = `${cells.length} rows were pasted.`
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
  sheet.value = { ...sheet.value, rows: [...sheet.value.rows, row] }
  unknown.value = unknown.value.filter((one) => one !== keys)
  only.value = ''
  shown.value = Math.max(shown.value, sheet.value.rows.length)
  focus(sheet.value.rows.length - 1, keys.length ? keyCount.value : 0)
}

function addColumn() {
  let free = 'column'
  for (let i = 2; columns.value.includes(free); i++) free = `column ${i}`
  sheet.value = withColumn(sheet.value, free, 'text')
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="heading">
    <h1>{{ about?.name ?? id }}</h1>
    <span class="mid mono">{{ id }}</span>
    <span class="gap"></span>
    <span v-if="said" class="mid" role="status">{{ said }}</span>
    <button class="btn" @click="file?.click()">Fill from a file…</button>
    <input
      ref="file"
      class="unseen"
      type="file"
      accept=".csv,.tsv,.txt,text/csv"
      aria-label="A file of rows"
      @change="fromFile"
    />
    <button class="btn" :disabled="busy || !about" @click="remove">Remove the table</button>
    <button class="btn main" :disabled="busy || !changed" @click="keep">Keep</button>
  </div>
  <p v-if="error" class="bad note" role="alert">{{ error }}</p>
  <div v-if="about" class="page">
    <section class="sheet" aria-label="The rows">
      <div class="saying">
        <label><span class="mid">Called</span> <input v-model="name" class="in called" /></label>
        <label
          ><span class="mid">Case</span>
          <select v-model="ignoreCase" class="in">
            <option value="false">counts</option>
            <option value="true">is ignored</option>
            <option v-if="!['true', 'false'].includes(ignoreCase)" :value="ignoreCase">
              is ignored as in {{ ignoreCase }}
            </option>
          </select></label
        >
        <label
          ><span class="mid">If a key is not found,</span>
          <select v-model="notFound" class="in">
            <option v-for="(words, key) in NOT_FOUND" :key="key" :value="key">{{ words }}</option>
          </select></label
        >
        <label v-if="notFound === 'use'"
          ><span class="mid">namely</span>
          <input v-model="use" class="in" aria-label="The stated value"
        /></label>
      </div>
      <p v-if="unknown.length" class="unknown">
        Asked for and not in it:
        <button
          v-for="keys in unknown.slice(0, 8)"
          :key="keys.join()"
          class="btn"
          @click="addRow(keys)"
        >
          Add “{{ keys.join(', ') }}”
        </button>
        <span v-if="unknown.length > 8">and {{ unknown.length - 8 }} more</span>
      </p>
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
    </section>
    <UsersAndChanges :users="about.users" :changes="about.changes" back @back="bringBack" />
  </div>
</template>

<style scoped>
.page {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
}
.sheet {
  padding: 12px 18px;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.saying,
.tools {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
  padding-bottom: 8px;
}
.saying label {
  display: flex;
  gap: 8px;
  align-items: center;
}
.called {
  width: 300px;
}
.unknown {
  color: var(--held);
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
  padding-bottom: 8px;
}
.note {
  padding: 8px 20px;
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
