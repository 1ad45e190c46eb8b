<script setup lang="ts">
import { computed, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { capital, counted } from '@/shared/format/words'
import RuleDifferences from '@/shared/ui/RuleDifferences.vue'
import { readResults, type Copy, type Results } from './api'
import { partName, standing } from './words'

/** A copy, what it would take over, what it keeps, and what its last events would come to. */
const props = defineProps<{ original: string; copy: Copy; problem: string; open: boolean }>()
const chosen = defineModel<boolean>('chosen', { required: true })
const take = defineModel<string[]>('take', { required: true })
const emit = defineEmits<{ alone: [] }>()
const own = computed(() => props.copy.own.length + props.copy.both.length)
const results = ref<Results | null>(null)
const { busy, error, during } = useActing()

function cameTo(one: Results): string {
  const otherwise = one.differences.join('; ')
  if (!one.events) return otherwise ? capital(otherwise) : 'No event of it came so far'
  const of = `${one.differing} of its last ${counted(one.events, 'event')}`
  return `${of} would come to something else${otherwise ? `: ${otherwise}` : ''}`
}
const ask = () =>
  during(async () => {
    results.value = await readResults(props.original, props.copy.id)
  })
</script>

<template>
  <li>
    <div class="line">
      <input
        :id="`copy-${copy.id}`"
        v-model="chosen"
        type="checkbox"
        :disabled="!!copy.hindrance || (!copy.follows && !take.length)"
      />
      <label :for="`copy-${copy.id}`"
        ><b>{{ copy.name }}</b>
        <span class="mid version"
          >version {{ copy.version }}{{ copy.held ? ', held' : '' }}</span
        ></label
      >
      <span class="stands">{{ standing(copy) }}</span>
      <span class="mid">{{
        own ? `${counted(own, 'part')} of its own` : 'nothing of its own'
      }}</span>
      <RouterLink class="btn bare" :to="{ name: 'bridge', params: { id: copy.id } }"
        >Open</RouterLink
      >
    </div>
    <p v-if="problem" class="bad" role="alert">It did not follow: {{ problem }}</p>
    <p v-if="copy.hindrance" class="bad">{{ copy.hindrance }}.</p>
    <details :open="open && (copy.follows || copy.both.length > 0)">
      <summary>{{ copy.follows ? 'What it would take over' : 'How it differs' }}</summary>
      <RuleDifferences v-if="copy.follows" :differences="copy.differences" />
      <fieldset v-if="copy.both.length">
        <legend>Changed in both: it keeps its own, unless you take the original’s</legend>
        <label v-for="path in copy.both" :key="path">
          <input v-model="take" type="checkbox" :value="path" /> {{ partName(path) }}
        </label>
      </fieldset>
      <RuleDifferences v-if="copy.ifTaken.length" :differences="copy.ifTaken" />
      <p v-if="copy.own.length" class="mid">
        Keeps its own: {{ copy.own.map(partName).join(', ') }}
      </p>
      <p v-if="results" class="results" role="status">{{ cameTo(results) }}.</p>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
      <p class="acts">
        <button v-if="copy.follows && !results" class="btn" :disabled="busy" @click="ask">
          See what its last events would come to
        </button>
        <button class="btn bare" @click="emit('alone')">Let it stand for itself</button>
      </p>
    </details>
  </li>
</template>

<style scoped>
li {
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
}
.line {
  display: grid;
  grid-template-columns: 20px minmax(180px, 1fr) 330px 150px max-content;
  gap: 10px;
  align-items: center;
}
details {
  margin: 4px 0 0 30px;
}
summary {
  cursor: pointer;
  color: var(--kelp);
  font-weight: 600;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 8px 0;
  display: flex;
  gap: 4px 16px;
  flex-wrap: wrap;
}
legend {
  color: var(--ink-2);
  padding: 0;
  margin-bottom: 2px;
}
.version {
  margin-left: 8px;
}
.results {
  margin: 8px 0;
}
.acts {
  display: flex;
  gap: 16px;
  margin: 8px 0 0;
}
</style>
