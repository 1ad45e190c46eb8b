<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { momentText } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import type { TrialView } from './api'

defineProps<{ trial: TrialView; open: string }>()
const { zone } = useSession()
const emit = defineEmits<{ show: [field: string] }>()

const WORDS: Record<string, string> = {
  create: 'A task would be made',
  update: 'A task would be changed',
  'passed by': 'It would be passed by',
  failed: 'It would fail',
  unchanged: 'Nothing would change',
}
</script>

<template>
  <section class="leaving" aria-labelledby="leaving">
    <h2 id="leaving">Leaving</h2>
    <p v-if="trial.verdict" class="verdict" :class="trial.verdict.replace(' ', '-')">
      <VerdictMark :kind="trial.verdict" />
      {{
        trial.tasks > 1
          ? `${trial.tasks} tasks would be made`
          : (WORDS[trial.verdict] ?? trial.verdict)
      }}
    </p>
    <p v-else class="mid">No event is in view yet.</p>
    <p v-for="reason in trial.because" :key="reason" class="because">{{ reason }}</p>
    <dl>
      <template v-for="field in trial.leaving" :key="field.key">
        <template v-if="field.ruled || field.required">
          <dt>
            <button class="to" :class="{ on: open === field.key }" @click="emit('show', field.key)">
              {{ field.name }}
            </button>
          </dt>
          <dd>
            <span v-if="field.problem" class="bad">✕ {{ field.problem }}</span>
            <span v-else-if="field.shown" class="shown" :title="field.value">{{
              momentText(field.shown, zone)
            }}</span>
            <span v-else class="dim">empty</span>
            <span v-for="warning in field.warnings" :key="warning" class="warned"
              >! {{ warning }}</span
            >
          </dd>
        </template>
      </template>
    </dl>
    <p v-if="trial.matchKey" class="mid key">
      The same thing as other events with <b class="mono">{{ trial.matchKey }}</b>
    </p>
  </section>
</template>

<style scoped>
.leaving {
  background: var(--tide);
  border-left: 1px solid var(--tide-line);
  padding: 12px 16px;
  overflow: auto;
}
.verdict {
  display: flex;
  gap: 6px;
  align-items: center;
  font-weight: 650;
}
.verdict.failed,
.bad {
  color: var(--failed);
}
.because {
  margin-top: 4px;
  color: var(--ink-2);
}
dl {
  margin: 10px 0;
}
dt {
  margin-top: 8px;
}
dd {
  margin: 0;
  display: grid;
  overflow-wrap: anywhere;
}
.to {
  border: 0;
  background: none;
  padding: 0;
  color: var(--ink-2);
  font-size: 12px;
  font-weight: 600;
  cursor: pointer;
  border-bottom: 1px dotted var(--ink-3);
}
.to.on {
  color: var(--ink);
  border-bottom: 2px solid var(--clay);
}
.shown {
  white-space: pre-line;
}
.warned {
  color: var(--held);
  font-size: 13px;
}
.key {
  border-top: 1px solid var(--tide-line);
  padding-top: 8px;
}
</style>
