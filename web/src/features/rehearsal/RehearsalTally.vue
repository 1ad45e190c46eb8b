<script setup lang="ts">
import { computed } from 'vue'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import type { Filter, Rehearsal, Verdict } from './api'
import { BECOMES, fieldName, UNHEARD, VERDICTS } from './words'

/** How many events came to what then and come to what now, and in how many a field is otherwise. */
const props = defineProps<{ rehearsal: Rehearsal; names: Record<string, string> }>()
const filter = defineModel<Filter>('filter', { required: true })

const cells = computed(() => props.rehearsal.tally.verdicts)
const columns = computed(() => VERDICTS.filter((now) => cells.value.some((one) => one.now === now)))
const rows = computed(() => {
  const then: (Verdict | null)[] = VERDICTS.filter((one) =>
    cells.value.some((cell) => cell.then === one),
  )
  return cells.value.some((cell) => cell.then === null) ? [...then, null] : then
})
const count = (then: Verdict | null, now: Verdict) =>
  cells.value.find((one) => one.then === then && one.now === now)?.events ?? 0
const then = (row: Verdict | null): Filter['then'] => row ?? 'UNHEARD'
const isShown = (row: Verdict | null, now: Verdict) =>
  filter.value.then === then(row) && filter.value.now === now
const show = (wanted: Filter, shown: boolean) => (filter.value = shown ? {} : wanted)
const number = (n: number) => n.toLocaleString('en')
</script>

<template>
  <div class="tally">
    <table class="rows matrix">
      <caption>
        What becomes of them
      </caption>
      <thead>
        <tr>
          <th scope="col">Then</th>
          <th v-for="now in columns" :key="now" scope="col" class="n">
            <small>now</small> {{ BECOMES[now] }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row ?? ''">
          <th scope="row">
            <VerdictMark v-if="row" :kind="row" /> {{ row ? BECOMES[row] : UNHEARD }}
          </th>
          <td v-for="now in columns" :key="now" class="n">
            <span v-if="!count(row, now)" class="dim">–</span>
            <span v-else-if="row === now">{{ number(count(row, now)) }}</span>
            <button
              v-else
              class="btn bare other"
              :aria-pressed="isShown(row, now)"
              :aria-label="`${number(count(row, now))}: then ${row ? BECOMES[row] : UNHEARD}, now ${BECOMES[now]}`"
              @click="show({ then: then(row), now }, isShown(row, now))"
            >
              {{ number(count(row, now)) }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <table v-if="rehearsal.tally.fields.length" class="rows fields">
      <caption>
        Fields that hold something else
      </caption>
      <thead>
        <tr>
          <th scope="col">Field</th>
          <th scope="col" class="n">Events</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in rehearsal.tally.fields" :key="one.field">
          <th scope="row">{{ fieldName(one.field, names) }}</th>
          <td class="n">
            <button
              class="btn bare other"
              :aria-pressed="filter.field === one.field"
              :aria-label="`${number(one.events)} in which ${fieldName(one.field, names)} is otherwise`"
              @click="show({ field: one.field }, filter.field === one.field)"
            >
              {{ number(one.events) }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.tally {
  display: flex;
  gap: 40px;
  align-items: flex-start;
  padding: 0 20px 12px;
}
table {
  width: auto;
}
caption {
  text-align: left;
  font-weight: 600;
  padding: 4px 0;
  white-space: nowrap;
}
.n {
  text-align: right;
  min-width: 110px;
}
th[scope='row'] {
  font-weight: 400;
  color: var(--ink);
  white-space: nowrap;
}
.other[aria-pressed='true'] {
  background: var(--panel);
  outline: 1.5px solid var(--kelp);
}
small {
  color: var(--ink-2);
}
</style>
