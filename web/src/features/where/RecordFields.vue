<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { momentText } from '@/shared/format/time'
import type { RecordNow } from './api'

/** A record as its system has it just now. */
defineProps<{ now: RecordNow }>()
const { zone } = useSession()

const STATES: Record<RecordNow['state'], string> = {
  THERE: 'It is there.',
  NOT_THERE: 'It is not there.',
  NOT_ASKED: 'Nothing there is found by its id, so that it was not asked.',
  NO_ANSWER: 'It was asked and did not answer:',
}
</script>

<template>
  <p :class="{ bad: now.state === 'NOT_THERE' || now.state === 'NO_ANSWER' }">
    {{ STATES[now.state] }} {{ now.problem }}
    <a v-if="now.page" :href="now.page" target="_blank" rel="noopener">Its page</a>
  </p>
  <dl v-if="now.fields.length">
    <template v-for="field in now.fields" :key="field.name">
      <dt>{{ field.name }}</dt>
      <dd>{{ momentText(field.text, zone) }}</dd>
    </template>
  </dl>
</template>

<style scoped>
p {
  margin: 0 0 6px;
}
a {
  text-decoration: underline;
}
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 2px 12px;
  margin: 0 0 8px;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
</style>
