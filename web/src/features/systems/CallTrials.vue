<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { CALL_WORDS, tryCall, WRITES, type CollectionOfSystem, type CallOutcome } from './connect'

/** The calls of one collection, each really made at a press; what writes comes last and says so. */
const props = defineProps<{
  collection: CollectionOfSystem
  document: string
  secrets: Record<string, string>
}>()
const results = reactive<Record<string, CallOutcome>>({})
const busy = ref('')
const id = ref('')
const fields = reactive<Record<string, string>>({})

const groups = computed(() => [
  {
    words: 'reads',
    writes: false,
    calls: props.collection.calls.filter((call) => !WRITES.includes(call)),
  },
  {
    words: 'Calls that write there',
    writes: true,
    calls: props.collection.calls.filter((call) => WRITES.includes(call)),
  },
])

const refusal = (said: string): CallOutcome => ({
  works: false,
  said,
  record: '',
  id: '',
  differences: [],
  calls: [],
})

async function run(call: string) {
  busy.value = call
  try {
    const filled = Object.entries(fields).filter(([, text]) => text !== '')
    const outcome = await tryCall({
      document: props.document,
      secrets: props.secrets,
      collection: props.collection.id,
      call,
      id: id.value,
      fields: Object.fromEntries(filled),
    })
    results[call] = outcome
    if (outcome.id) id.value = outcome.id
  } catch (e) {
    results[call] = refusal((e as Error).message)
  } finally {
    busy.value = ''
  }
}

const needsId = (call: string) => ['find', 'change', 'remove'].includes(call)
const answered = (view: CallOutcome) =>
  view.calls
    .map((call) =>
      [
        call.request[0],
        call.requestBody,
        call.status ? `answered ${call.status}` : call.problem,
        call.responseBody.slice(0, 4000),
      ]
        .filter(Boolean)
        .join('\n'),
    )
    .join('\n\n')
</script>

<template>
  <section class="trials" :aria-label="`Calls of ${collection.name}`">
    <h3>{{ collection.name }}</h3>
    <p v-if="collection.hook" class="mid">
      Its webhooks go to <span class="mono">{{ collection.hook }}</span>
    </p>
    <p v-if="!collection.calls.length" class="mid">No call is described that could be tried.</p>
    <details v-if="collection.holds.length">
      <summary>The {{ collection.holds.length }} fields of its records</summary>
      <table>
        <tbody>
          <tr v-for="field in collection.holds" :key="field.key">
            <td class="mono">{{ field.key }}</td>
            <td>{{ field.name }}</td>
            <td class="mid">{{ field.type }}</td>
          </tr>
        </tbody>
      </table>
    </details>
    <template v-for="group in groups" :key="group.words">
      <component :is="group.writes ? 'details' : 'div'" v-if="group.calls.length">
        <summary v-if="group.writes">{{ group.words }}</summary>
        <div v-if="group.writes && group.calls.includes('make')" class="fields">
          <label v-for="field in collection.fields" :key="field.key"
            >{{ field.name }}{{ field.required ? ', needed' : '' }}
            <small class="dim">{{ field.type }}</small>
            <input v-model="fields[field.key]" class="in" />
          </label>
        </div>
        <ul>
          <li v-for="call in group.calls" :key="call">
            <button
              class="btn"
              :disabled="busy !== '' || (needsId(call) && !id)"
              :aria-label="`${CALL_WORDS[call]}: ${collection.name}`"
              @click="run(call)"
            >
              {{ busy === call ? 'Calling…' : CALL_WORDS[call] }}
            </button>
            <span v-if="!results[call]" class="dim">{{
              WRITES.includes(call) ? 'writes there' : 'only reads'
            }}</span>
            <div v-else class="result">
              <VerdictMark :kind="results[call]!.works ? 'DONE' : 'FAILED'" />
              <span :class="{ bad: !results[call]!.works }">{{ results[call]!.said }}</span>
              <p v-for="one in results[call]!.differences" :key="one" class="bad">{{ one }}</p>
              <details v-if="results[call]!.calls.length">
                <summary>What was sent and answered</summary>
                <pre class="mono" tabindex="0">{{ answered(results[call]!) }}</pre>
              </details>
            </div>
          </li>
        </ul>
      </component>
    </template>
    <label v-if="collection.calls.some(needsId)" class="id"
      >Id of a record to find, change or take away
      <input v-model="id" class="in mono" placeholder="comes by itself from a call above" />
    </label>
  </section>
</template>

<style scoped>
.trials {
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
h3 {
  font-size: 14px;
  margin: 0 0 6px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  display: grid;
  gap: 6px;
}
li {
  display: grid;
  grid-template-columns: 170px 1fr;
  gap: 10px;
  align-items: baseline;
}
.result p {
  margin: 2px 0;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
  margin-top: 6px;
}
.id,
details {
  margin-top: 8px;
  display: block;
}
.fields .in,
.id .in {
  display: block;
  width: 100%;
}
td {
  padding: 1px 14px 1px 0;
}
pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-height: 260px;
  overflow: auto;
  font-size: 12.5px;
}
summary {
  cursor: pointer;
  color: var(--kelp);
}
</style>
