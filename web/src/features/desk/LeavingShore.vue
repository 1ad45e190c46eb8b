<script setup lang="ts">
import { ref } from 'vue'
import { useSession } from '@/shared/composables/session'
import { momentText } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import type { TrialView } from './api'

/** What leaves: the task as its target will keep it, each value leading to its rule. */
defineProps<{ trial: TrialView; open: string; pinned: string }>()
const { zone } = useSession()
const emit = defineEmits<{ show: [field: string]; pin: [name: string]; send: [] }>()
const pinning = ref(false)
const name = ref('')

const WORDS: Record<string, string> = {
  create: 'A task would be made',
  update: 'A task would be changed',
  'passed by': 'It would be passed by',
  failed: 'It would fail',
  unchanged: 'Nothing would change',
}

function pin() {
  emit('pin', name.value)
  pinning.value = false
  name.value = ''
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
    <p v-for="after in trial.then.filter((one) => one.done)" :key="after.name" class="mid">
      Then <b>{{ after.name.replaceAll('-', ' ') }}</b>: {{ after.what }}
    </p>
    <p v-if="trial.matchKey" class="mid key">
      The same thing as other events with <b class="mono">{{ trial.matchKey }}</b>
    </p>
    <div v-if="trial.samples.length" class="acts">
      <button
        class="btn"
        :disabled="trial.problems.length > 0"
        :aria-expanded="pinning"
        @click="pinning = !pinning"
      >
        Pin this result…
      </button>
      <button
        class="btn"
        :disabled="trial.problems.length > 0 || trial.verdict !== 'create'"
        @click="emit('send')"
      >
        Try it for real…
      </button>
      <form v-if="pinning" class="pin" @submit.prevent="pin">
        <input
          v-model="name"
          class="in"
          aria-label="What the example is about"
          placeholder="What the example is about"
        />
        <button class="btn main">Pin</button>
      </form>
      <p v-if="pinned" class="mid" role="status">{{ pinned }}</p>
    </div>
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
.verdict.failed {
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
.key,
.acts {
  border-top: 1px solid var(--tide-line);
  padding-top: 8px;
}
.acts {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin-top: 10px;
}
.pin {
  display: flex;
  gap: 6px;
  width: 100%;
}
.pin .in {
  flex: 1;
  min-width: 0;
}
</style>
