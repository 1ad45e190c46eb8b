<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSession } from '@/shared/composables/session'
import { startOfDay } from '@/shared/format/time'
import type { Rehearsals, Wish } from './api'

/** What is to be rehearsed, over which events, and whom lookups ask. */
const props = defineProps<{ id: string; of: Rehearsals; busy: boolean }>()
const emit = defineEmits<{ begin: [wish: Wish] }>()
const { now, zone } = useSession()

const DRAFT = 'draft'
const DAYS = [1, 7, 30, 90]
const what = ref(props.of.hasDraft ? DRAFT : String(props.of.versions[0] ?? DRAFT))
const span = ref('all')
const first = ref('')
const last = ref('')
const answers = ref<Wish['answers']>('OF_THEN')

const since = computed(() => {
  if (span.value === 'all') return null
  if (span.value === 'days') return first.value ? startOfDay(first.value, zone.value) : null
  return new Date(now.value.getTime() - Number(span.value) * 86_400_000)
})
const until = computed(() =>
  span.value === 'days' && last.value ? startOfDay(last.value, zone.value, 1) : null,
)
function begin() {
  emit('begin', {
    bridge: props.id,
    version: what.value === DRAFT ? null : Number(what.value),
    answers: answers.value,
    since: since.value?.toISOString() ?? null,
    until: until.value?.toISOString() ?? null,
    most: null,
  })
}
</script>

<template>
  <form class="asked" @submit.prevent="begin">
    <label
      >Rehearse
      <select v-model="what" class="in">
        <option v-if="of.hasDraft || !of.versions.length" :value="DRAFT">the draft</option>
        <option v-for="version in of.versions" :key="version" :value="String(version)">
          version {{ version }}{{ version === of.liveVersion ? ', live' : '' }}
        </option>
      </select>
    </label>
    <label
      >over
      <select v-model="span" class="in">
        <option value="all">all events that are kept</option>
        <option v-for="days in DAYS" :key="days" :value="String(days)">
          {{ days === 1 ? 'the last 24 hours' : `the last ${days} days` }}
        </option>
        <option value="days">some days</option>
      </select>
    </label>
    <template v-if="span === 'days'">
      <label>from <input v-model="first" class="in" type="date" required /></label>
      <label
        >to the end of <input v-model="last" class="in" type="date" :min="first" required
      /></label>
    </template>
    <label
      >Lookups find
      <select v-model="answers" class="in">
        <option value="OF_THEN">what they found then</option>
        <option value="OF_NOW">what they find now</option>
      </select>
    </label>
    <button class="btn main" :disabled="busy">Rehearse</button>
  </form>
</template>

<style scoped>
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  padding: 12px 20px 4px;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
}
</style>
