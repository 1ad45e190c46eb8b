<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { cellsOf, csvOf } from '@/shared/format/csv'
import { useActing } from '@/shared/composables/acting'
import UsersAndChanges from './UsersAndChanges.vue'
import { keepTable, readAbout, readRows, readThen, removeTable, type TableAbout } from './api'
import SheetGrid from './SheetGrid.vue'
import { columnsOf, filled, told, type Sheet } from './sheet'

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
const said = ref('')
const { busy, error, during } = useActing()
const grid = useTemplateRef<InstanceType<typeof SheetGrid>>('grid')
const file = useTemplateRef<HTMLInputElement>('file')

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
const columns = computed(() => columnsOf(sheet.value))
const state = () =>
  JSON.stringify([name.value, ignoreCase.value, notFound.value, use.value, sheet.value])
const changed = computed(() => state() !== kept.value)

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

function addAsked(keys: string[]) {
  unknown.value = unknown.value.filter((one) => one !== keys)
  grid.value?.addRow(keys)
}
</script>

<template>
  <div class="heading">
    <h1>{{ about?.name ?? id }}</h1>
    <span class="mid mono">{{ id }}</span>
    <span class="gap"></span>
    <span v-if="said" class="mid" role="status">{{ said }}</span>
    <RouterLink class="btn bare" :to="{ name: 'uses', query: { kind: 'table', id } }"
      >What hangs on it</RouterLink
    >
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
          @click="addAsked(keys)"
        >
          Add “{{ keys.join(', ') }}”
        </button>
        <span v-if="unknown.length > 8">and {{ unknown.length - 8 }} more</span>
      </p>
      <SheetGrid ref="grid" v-model="sheet" :names="names" @said="said = $event" />
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
.saying {
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
</style>
