<script setup lang="ts">
import { computed, ref } from 'vue'
import { useResource } from '@/shared/composables/resource'
import ResourceState from '@/shared/ui/ResourceState.vue'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { keepRows, readTable, type UnknownKey } from './api'
import { csvOf } from '@/shared/format/csv'

/** A reference table edited without leaving the desk; keys that were asked in vain are offered. */
const props = defineProps<{
  table: string
  unknown: UnknownKey[]
  /** What people call the keys that the target knows, by key. */
  names: Record<string, string>
}>()
const emit = defineEmits<{ kept: []; close: [] }>()
const rows = ref<string[][]>([])
const refused = ref('')
const keeping = ref(false)
const { data, error, loading, load } = useResource(async () => {
  const view = await readTable(props.table)
  rows.value = view.rows.map((row) => [...row])
  return view
})
void load()

const keyCount = computed(() => data.value?.table.keys.length ?? 1)
const offered = computed(() => {
  const there = new Set(rows.value.map((row) => row.slice(0, keyCount.value).join('\n')))
  const asked = [
    ...props.unknown.map((one) => one.keys),
    ...(data.value?.unknown ?? []).map((one) => one.keys),
  ]
  const all = new Map(asked.map((keys) => [keys.join('\n'), keys]))
  return [...all].filter(([joined]) => !there.has(joined)).map(([, keys]) => keys)
})

function add(keys: string[]) {
  const width = data.value?.columns.length ?? keys.length
  rows.value = [...rows.value, [...keys, ...Array<string>(width - keys.length).fill('')]]
}

function change(row: number, cell: number, text: string) {
  rows.value = rows.value.map((old, i) =>
    i === row ? old.map((was, k) => (k === cell ? text : was)) : old,
  )
}

async function keep() {
  if (!data.value) return
  keeping.value = true
  try {
    await keepRows(props.table, csvOf(data.value.columns, rows.value))
    emit('kept')
  } catch (e) {
    refused.value = (e as Error).message
  } finally {
    keeping.value = false
  }
}
</script>

<template>
  <OverDialog :title="data?.table.name ?? table" wide @close="emit('close')">
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <template v-if="data">
      <p v-if="offered.length" class="offered">
        <span class="mid">Asked for and not in it:</span>
        <button v-for="keys in offered" :key="keys.join('|')" class="btn" @click="add(keys)">
          Add “{{ keys.join(', ') }}”
        </button>
        <button v-if="offered.length > 2" class="btn bare" @click="offered.forEach(add)">
          Add all {{ offered.length }}
        </button>
      </p>
      <datalist id="known-keys">
        <option v-for="(name, key) in names" :key="key" :value="key">{{ name }}</option>
      </datalist>
      <div class="scroll">
        <table class="rows">
          <thead>
            <tr>
              <th v-for="(column, i) in data.columns" :key="column" scope="col">
                {{ column }} <span class="dim">{{ i < keyCount ? 'key' : '' }}</span>
              </th>
              <th scope="col"><span class="unseen">Acts</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, i) in rows" :key="i">
              <td v-for="(cell, k) in row" :key="k">
                <input
                  class="in"
                  :aria-label="`${data.columns[k]} of row ${i + 1}`"
                  :list="k < keyCount ? undefined : 'known-keys'"
                  :value="cell"
                  @input="change(i, k, ($event.target as HTMLInputElement).value)"
                />
                <span v-if="k >= keyCount && names[cell]" class="mid called">{{
                  names[cell]
                }}</span>
              </td>
              <td>
                <button class="btn bare" @click="rows = rows.filter((_, k) => k !== i)">
                  Remove
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <button class="btn bare" @click="add([])">Add a row</button>
      <p class="dim">Every bridge that uses this table sees the change at once.</p>
    </template>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Cancel</button>
      <button class="btn main" :disabled="!data || keeping" @click="keep">Keep the rows</button>
    </template>
  </OverDialog>
</template>

<style scoped>
.offered {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  margin: 8px 0;
}
.scroll {
  max-height: 46vh;
  overflow: auto;
}
td .in {
  width: 60%;
}
td:first-child .in {
  width: 100%;
}
.called {
  margin-left: 8px;
}
</style>
