<script setup lang="ts">
import { nextTick, ref, useTemplateRef, watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, dayText } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import ResultDialog from './ResultDialog.vue'
import TestDialog from './TestDialog.vue'
import { endTest, readEndedTests, readTests, runTest, type TestPlan, type TestResult } from './api'

/** What is tested of a bridge again and again: when, by whom, and how it went. */
const props = defineProps<{ id: string }>()
const { now, zone } = useSession()
const { data, error, load } = useResource(() => readTests(props.id))
const { data: ended, load: loadEnded } = useResource(() => readEndedTests(props.id))
const heading = useTemplateRef<HTMLElement>('heading')
watch(
  () => props.id,
  async () => {
    await Promise.all([load(), loadEnded()])
    // Who comes from Watch is led to what it tells of, which the browser did not find yet.
    await nextTick()
    if (window.location.hash === '#tests') heading.value?.scrollIntoView()
  },
  { immediate: true },
)
/** The test that is planned anew; null for a new one, of which may be said what it tests. */
const planning = ref<{ test: TestPlan | null; what?: string } | null>(null)
const saying = ref<TestPlan | null>(null)
const { busy, error: refused, during } = useActing()

function kept(tests: TestPlan[]) {
  data.value = tests
  planning.value = null
  saying.value = null
}
const run = (test: TestPlan) => during(async () => kept(await runTest(props.id, test.id)))
const end = (test: TestPlan) =>
  during(async () => {
    await endTest(props.id, test.id, test.revision)
    await Promise.all([load(), loadEnded()])
  })

const often = (test: TestPlan) =>
  test.rule ?? `${counted(test.everyDays ?? 0, 'day')} after the last time`
function when(test: TestPlan): string {
  if (!test.dueOn) return 'never due again'
  return `${test.due ? 'due since' : 'due'} ${dayText(test.dueOn, 'UTC')}`
}
const byWhom = (result: TestResult) =>
  result.testedBy === 'engine' ? 'by itself' : `by a ${result.testedBy}`
const outcome = (result: TestResult) =>
  `${result.passed ? 'Passed' : 'Failed'} ${dayAndTime(result.testedAt, now.value, zone.value)}, ` +
  `${byWhom(result)}, version ${result.version}: ${result.words}`
</script>

<template>
  <div role="region" aria-labelledby="tests">
    <h2 id="tests" ref="heading">
      Tests
      <button class="btn bare" @click="planning = { test: null }">Plan a test…</button>
    </h2>
    <p v-if="error || refused" class="bad" role="alert">{{ error || refused }}</p>
    <p v-if="data && !data.length" class="mid">
      No test is planned. Those that are due stand on Watch, and how they went is kept.
    </p>
    <ul>
      <li
        v-for="test in data ?? []"
        :key="test.id"
        :class="{ due: test.due, failed: test.results[0] && !test.results[0].passed }"
      >
        <p>
          <b>{{ test.what }}</b>
          <span class="when">{{ when(test) }}</span>
        </p>
        <p class="mid">
          {{ test.how === 'EXAMPLES' ? 'By itself, with its pinned examples' : 'By hand'
          }}<template v-if="test.owner">, {{ test.owner }}</template
          >; {{ often(test) }}
        </p>
        <p v-if="test.results[0]" :class="{ bad: !test.results[0].passed }">
          {{ outcome(test.results[0]) }}
        </p>
        <p v-else class="mid">Never tested so far.</p>
        <p class="acts">
          <button v-if="test.how === 'EXAMPLES'" class="btn" :disabled="busy" @click="run(test)">
            Test it now
          </button>
          <button v-else class="btn" @click="saying = test">Say how it went…</button>
          <button class="btn bare" @click="planning = { test }">Plan it anew…</button>
          <button class="btn bare" :disabled="busy" @click="end(test)">Test it no more</button>
        </p>
        <details v-if="test.results.length > 1">
          <summary>{{ counted(test.resultsInAll - 1, 'earlier time') }}</summary>
          <p v-for="(result, i) in test.results.slice(1)" :key="i" class="mid">
            {{ outcome(result) }}
          </p>
          <p v-if="test.resultsInAll > test.results.length" class="mid">
            {{ test.resultsInAll - test.results.length }} more are kept.
          </p>
        </details>
      </li>
    </ul>
    <details v-if="ended?.length">
      <summary>{{ counted(ended.length, 'test') }} that ended</summary>
      <template v-for="test in ended" :key="test.id">
        <p>
          <b>{{ test.what }}</b>
          <span class="when">ended {{ dayAndTime(test.endedAt, now, zone) }}</span>
          <button class="btn bare again" @click="planning = { test: null, what: test.what }">
            Plan it again…
          </button>
        </p>
        <p v-for="(result, i) in test.results" :key="i" class="mid">{{ outcome(result) }}</p>
        <p v-if="!test.results.length" class="mid">It was never tested.</p>
        <p v-if="test.resultsInAll > test.results.length" class="mid">
          {{ test.resultsInAll - test.results.length }} more are kept.
        </p>
      </template>
    </details>
    <TestDialog
      v-if="planning"
      :bridge="id"
      :test="planning.test"
      :what="planning.what"
      @close="planning = null"
      @kept="kept"
    />
    <ResultDialog v-if="saying" :bridge="id" :test="saying" @close="saying = null" @kept="kept" />
  </div>
</template>

<style scoped>
h2 {
  margin-top: 18px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  margin: 0 0 10px;
  padding: 0 0 0 10px;
  border-left: 3px solid var(--line-2);
}
li.due {
  border-left-color: var(--held);
}
li.failed {
  border-left-color: var(--failed);
}
p {
  margin: 0 0 4px;
}
.when,
.again {
  margin-left: 8px;
}
summary {
  margin-bottom: 6px;
}
.acts .btn + .btn {
  margin-left: 8px;
}
</style>
