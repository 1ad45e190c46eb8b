<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import FieldWay from './FieldWay.vue'
import { named, type FieldWay as Way, type TraceView } from './api'

/** Each target field with what the target keeps; one of them opened to the way of its value. */
const props = defineProps<{ view: TraceView }>()
const chosen = ref('')

const fields = computed(() => props.view.story.fields)
/** Whether it came to something without a way for each field: two places are kept alike. */
const heldAgainst = computed(() =>
  ['CREATE', 'UPDATE', 'UNCHANGED'].includes(props.view.trace.verdict),
)
const open = computed(() => fields.value.find((field) => field.field === chosen.value))
const kept = computed(() => fields.value.some((field) => field.stored))
const warned = computed(() => new Set(props.view.story.warnings.map((w) => w.field)))

watch(
  fields,
  (all) => {
    if (open.value) return
    const most = Math.max(...all.map((f) => f.steps.length))
    const first = all.find((f) => f.result.problem) ?? all.find((f) => f.steps.length === most)
    chosen.value = first?.field ?? ''
  },
  { immediate: true },
)

/** Which of several tasks, or what comes after them, a field is of; nothing where there is one. */
const memberOf = (field: Way) => field.field.slice(0, Math.max(0, field.field.indexOf('/')))
const nameOf = (field: Way) => {
  const of = ` (${memberOf(field)})`
  return field.name.endsWith(of) ? field.name.slice(0, -of.length) : field.name
}
/** What comes after the tasks goes to other systems than theirs. */
const isOfTask = (field: Way) => !memberOf(field).startsWith('then ')
const heading = computed(() => {
  if (!kept.value) return 'As computed'
  return fields.value.every(isOfTask)
    ? `As stored by ${props.view.targetSystem}`
    : 'As stored there'
})
const begins = (i: number) =>
  !!memberOf(fields.value[i]!) &&
  (i === 0 || memberOf(fields.value[i - 1]!) !== memberOf(fields.value[i]!))

function from(field: Way): string {
  const names = field.sources.map((source) => source.name)
  if (names.length === 0) return 'always'
  return names.length <= 2 ? names.join(', ') : `${names.length} fields`
}

function shown(field: Way): string {
  return field.result.problem || named(field, field.stored || field.result.text)
}
</script>

<template>
  <section class="lineage" aria-labelledby="ways">
    <h2 id="ways">Where each value came from</h2>
    <p v-if="fields.length === 0" class="mid">
      <template v-if="heldAgainst"
        >Both tasks were held against what they agreed on last; the lines say what became of each
        field.</template
      >
      <template v-else>No field was computed: the event was stopped before that.</template>
    </p>
    <template v-else>
      <table class="rows">
        <thead>
          <tr>
            <th scope="col">Field</th>
            <th scope="col">{{ heading }}</th>
            <th scope="col">From</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="(field, i) in fields" :key="field.field">
            <tr v-if="begins(i)" class="member">
              <th scope="rowgroup" colspan="3">{{ memberOf(field) }}</th>
            </tr>
            <tr :class="{ on: field.field === chosen }">
              <th scope="row">
                <button
                  type="button"
                  :aria-pressed="field.field === chosen"
                  @click="chosen = field.field"
                >
                  {{ nameOf(field) }}
                </button>
              </th>
              <td
                class="mono value"
                :class="{ bad: field.result.problem, odd: warned.has(field.field) }"
                :title="shown(field)"
              >
                {{ shown(field) || '(nothing)' }}
              </td>
              <td class="mid from" :title="from(field)">{{ from(field) }}</td>
            </tr>
          </template>
        </tbody>
      </table>
      <FieldWay
        v-if="open"
        :way="open"
        :target="isOfTask(open) ? view.targetSystem : ''"
        :warnings="view.story.warnings.filter((w) => w.field === open?.field)"
      />
    </template>
    <template v-if="view.matchKey">
      <h2>Match key</h2>
      <p class="mono">{{ view.matchKey }}</p>
    </template>
    <h2 class="ids">Ids</h2>
    <dl>
      <dt>Trace</dt>
      <dd class="mono">{{ view.trace.id }}</dd>
      <dt>Event</dt>
      <dd class="mono">{{ view.event.id }}</dd>
      <dt>At the source</dt>
      <dd class="mono">{{ view.event.sourceId }}</dd>
      <template v-if="view.older">
        <dt>Sent again from</dt>
        <dd class="mono">
          <RouterLink :to="{ name: 'trace', params: { id: view.older } }">{{
            view.older
          }}</RouterLink>
        </dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
.lineage {
  background: var(--tide);
  border-left: 1px solid var(--tide-line);
  padding: 14px 20px;
  overflow: auto;
  min-width: 0;
}
table.rows {
  table-layout: fixed;
}
table.rows th:first-child {
  width: 104px;
}
table.rows th:last-child {
  width: 128px;
}
table.rows th,
table.rows td {
  border-color: var(--tide-line);
  height: 30px;
  overflow: hidden;
  text-overflow: ellipsis;
}
tbody th {
  white-space: normal;
  line-height: 18px;
  padding-left: 6px !important;
}
tr.member > th {
  color: var(--ink-2);
  font-size: 13px;
  padding-top: 8px;
}
tr.on > * {
  background: var(--panel);
}
tbody button {
  all: unset;
  cursor: pointer;
  font-size: 14px;
  font-weight: 400;
  color: var(--ink);
  text-decoration: underline dotted var(--ink-3);
  text-underline-offset: 4px;
}
tr.on button {
  font-weight: 650;
}
tbody button:focus-visible {
  outline: 2px solid var(--clay);
  outline-offset: 1px;
}
.bad {
  color: var(--failed);
}
.odd {
  background: var(--held-2);
}
h2:not(:first-child) {
  margin-top: 14px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 14px;
  margin: 0;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
