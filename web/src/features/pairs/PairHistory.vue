<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, momentText } from '@/shared/format/time'
import { readSteps, type KeptPair, type PairStep, type StepOfField } from './api'

/** What became of a pair, the newest first: which field changed where, and what came of it. */
const props = defineProps<{ pair: KeptPair }>()
const { now, zone } = useSession()
const { busy, error, during } = useActing()
const steps = ref<PairStep[]>([])
/** Where older ones begin; null if there are none. */
const before = ref<number | null>(null)

const read = (from?: number) =>
  during(async () => {
    const page = await readSteps(props.pair, from)
    steps.value = from === undefined ? page.steps : [...steps.value, ...page.steps]
    before.value = page.before
  })
void read()

/** Two places of one system are told apart by their own names. */
const nameOfSide = (on: string) => {
  const { left, right } = props.pair
  const task = on === 'left' ? left : right
  return left.system === right.system ? task.place : task.system
}
const across = (on: string) => (on === 'left' ? 'right' : 'left')
const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)

function cameOf({ kind, on, because }: StepOfField): string {
  const side = nameOfSide(on)
  switch (kind) {
    case 'MADE':
      return `made at ${side}`
    case 'CARRIED':
      return `changed at ${side}, went to ${nameOfSide(across(on))}`
    case 'MERGED':
      return 'changed on both, brought together'
    case 'AGREED':
      return 'both sides agree as they are'
    case 'STAYS':
      return `changed at ${side}, stays there: ${lower(because)}`
    case 'ASKED':
      return `a person is asked: ${lower(because)}`
    case 'WAITS':
      return `changed at ${side}, waits: ${lower(because)}`
    case 'PARTED':
      return `a pair no more, as ${because}`
  }
}
const shown = (value: string) => momentText(value, zone.value) || 'nothing'
</script>

<template>
  <section class="history" aria-label="What became of them">
    <p v-if="error" class="note bad" role="alert">{{ error }}</p>
    <p v-else-if="!steps.length && !busy" class="mid">Nothing is kept of what became of them.</p>
    <ol>
      <li v-for="step in steps" :key="step.id">
        <span class="when">
          <RouterLink v-if="step.trace" :to="{ name: 'trace', params: { id: step.trace } }">{{
            dayAndTime(step.at, now, zone)
          }}</RouterLink>
          <template v-else>{{ dayAndTime(step.at, now, zone) }}</template>
          <small v-if="step.askedBy">asked for by {{ step.askedBy }}</small>
        </span>
        <ul>
          <li v-for="(field, place) in step.fields" :key="place">
            <b v-if="field.field">{{ field.field }}</b>
            <span class="mid">{{ cameOf(field) }}</span>
            <span v-if="field.field" class="values">
              <span
                v-for="side in [field.left, field.right]"
                :key="side === field.left ? 'left' : 'right'"
              >
                <template v-if="side.before !== side.after"
                  ><del>{{ shown(side.before) }}</del> → </template
                ><span>{{ shown(side.after) }}</span>
              </span>
            </span>
          </li>
        </ul>
      </li>
    </ol>
    <button v-if="before !== null" class="btn" :disabled="busy" @click="read(before)">
      Older ones
    </button>
  </section>
</template>

<style scoped>
.history {
  padding: 6px 0 4px;
}
ol,
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
ol > li {
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
/* What is agreed on ends with a line of its own. */
ol > li:first-child {
  border-top: 0;
}
.when small {
  color: var(--ink-2);
  margin-left: 8px;
}
/* The same columns as what is agreed on, above. */
ul > li {
  display: grid;
  grid-template-columns: 120px 1fr;
  column-gap: 10px;
  padding-top: 2px;
}
ul > li > b {
  font-weight: 600;
}
ul > li > :only-child,
.values {
  grid-column: 2;
}
.values {
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: 10px;
  overflow-wrap: anywhere;
}
del {
  color: var(--ink-2);
}
a {
  text-decoration: underline;
}
</style>
