<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSession } from '@/shared/composables/session'
import { preciseTime, span } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import StoryDetail from './StoryDetail.vue'
import type { StoryLine, TraceView } from './api'

/** What happened, in order, each line with its time, its length and its place in the whole. */
const props = defineProps<{ view: TraceView }>()
const { zone } = useSession()
const open = ref<Set<number>>(new Set())

const lines = computed(() => props.view.story.lines)
const startOf = (line: StoryLine) => new Date(line.at).getTime() * 1000
const first = computed(() => Math.min(...lines.value.map(startOf)))
const whole = computed(() =>
  Math.max(1, ...lines.value.map((line) => startOf(line) + line.micros - first.value)),
)
const waited = computed(() =>
  lines.value.filter((line) => line.mark === 'WAITING').reduce((sum, l) => sum + l.micros, 0),
)

function bar(line: StoryLine) {
  return {
    left: `${((startOf(line) - first.value) / whole.value) * 100}%`,
    width: `${(line.micros / whole.value) * 100}%`,
  }
}

function opens(line: StoryLine): boolean {
  return line.call !== null || line.went !== '' || line.came !== ''
}

function toggle(i: number) {
  const next = new Set(open.value)
  if (!next.delete(i)) next.add(i)
  open.value = next
}
</script>

<template>
  <section class="story" aria-labelledby="happened">
    <h2 id="happened">
      What happened
      <small>
        {{ span(whole) }} in all<template v-if="waited"
          >, {{ span(waited) }} of it waiting</template
        >
      </small>
    </h2>
    <ol>
      <li v-for="(line, i) in lines" :key="i" :class="line.mark.toLowerCase()">
        <span class="mono at">{{ preciseTime(line.at, zone) }}</span>
        <VerdictMark :kind="line.mark" />
        <div class="said">
          <button
            v-if="opens(line)"
            type="button"
            class="opener"
            :aria-expanded="open.has(i)"
            @click="toggle(i)"
          >
            {{ line.text }}
          </button>
          <span v-else>{{ line.text }}</span>
          <small v-if="line.detail">{{ line.detail }}</small>
          <StoryDetail v-if="open.has(i)" :line="line" />
        </div>
        <span class="mono took">{{ line.micros > 0 ? span(line.micros) : '' }}</span>
        <span class="bar" aria-hidden="true"><u :style="bar(line)"></u></span>
      </li>
    </ol>
    <template v-if="view.story.tests.length">
      <h2>Only when</h2>
      <ul class="tests">
        <li v-for="test in view.story.tests" :key="test.sentence">
          <VerdictMark :kind="test.met ? 'DONE' : 'PASSED_BY'" />
          {{ test.sentence }}
          <span class="mono value">{{ test.value }}</span>
          <span class="mid">{{ test.met ? 'met' : 'not met' }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.story {
  padding: 14px 20px;
  overflow: auto;
  min-width: 0;
}
ol,
.tests {
  list-style: none;
  margin: 0 0 18px;
  padding: 0;
}
ol li {
  display: grid;
  grid-template-columns: 100px 24px minmax(0, 1fr) 68px 112px;
  align-items: start;
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
}
.at {
  color: var(--ink-3);
}
.took {
  text-align: right;
  color: var(--ink-2);
}
.bar {
  height: 8px;
  margin: 6px 0 0 12px;
  background: var(--sand);
  position: relative;
}
.bar u {
  position: absolute;
  top: 0;
  bottom: 0;
  min-width: 2px;
  max-width: 100%;
  background: var(--kelp);
}
.failed .bar u {
  background: var(--failed);
}
.waiting .bar u {
  background: var(--line-2);
}
small {
  display: block;
  font-size: 13px;
  line-height: 18px;
  color: var(--ink-2);
  overflow-wrap: anywhere;
}
h2 small {
  display: inline;
}
.opener {
  all: unset;
  cursor: pointer;
  text-decoration: underline dotted var(--ink-3);
  text-underline-offset: 4px;
}
.opener:hover {
  color: var(--kelp);
}
.opener:focus-visible {
  outline: 2px solid var(--clay);
  outline-offset: 2px;
}
.tests li {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.value {
  color: var(--kelp);
  margin-left: auto;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 40%;
  white-space: nowrap;
}
</style>
