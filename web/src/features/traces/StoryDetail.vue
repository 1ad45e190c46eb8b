<script setup lang="ts">
import { pretty } from '@/shared/format/words'
import type { StoryLine } from './api'

/** What went in and what came out of a line; for a call, as it was sent and answered. */
defineProps<{ line: StoryLine }>()

function answer(call: NonNullable<StoryLine['call']>): string {
  const status =
    call.status > 0
      ? `answered ${call.status}`
      : call.problem
        ? `no answer: ${call.problem}`
        : 'answered'
  return [status, ...call.response, '', pretty(call.responseBody)].join('\n').trim()
}

function sent(call: NonNullable<StoryLine['call']>): string {
  return [...call.request, '', pretty(call.requestBody)].join('\n').trim()
}
</script>

<template>
  <div class="detail">
    <template v-if="line.call">
      <figure>
        <figcaption>Sent</figcaption>
        <pre tabindex="0">{{ sent(line.call) }}</pre>
      </figure>
      <figure>
        <figcaption>Came back</figcaption>
        <pre tabindex="0">{{ answer(line.call) }}</pre>
      </figure>
    </template>
    <figure v-if="line.went">
      <figcaption>Went in</figcaption>
      <pre tabindex="0">{{ pretty(line.went) }}</pre>
    </figure>
    <figure v-if="line.came">
      <figcaption>Came out</figcaption>
      <pre tabindex="0">{{ pretty(line.came) }}</pre>
    </figure>
  </div>
</template>

<style scoped>
.detail {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 6px 0 4px;
}
figure {
  margin: 0;
}
figcaption {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-2);
}
pre {
  margin: 2px 0 0;
  padding: 6px 10px;
  max-height: 220px;
  overflow: auto;
  font: 12px/17px var(--mono);
  color: var(--ink);
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 4px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
