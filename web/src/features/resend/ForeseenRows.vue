<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { momentText } from '@/shared/format/time'
import { counted, VERDICT_WORDS } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import VerdictText from '@/shared/ui/VerdictText.vue'
import { readForeseen, type ForeseenList, type OfWhat, type Rules } from './api'

/** What each event would become now, beside what it came to. Looking does nothing. */
const props = defineProps<{ of: OfWhat; rules?: Rules }>()
const emit = defineEmits<{ seen: [list: ForeseenList] }>()
const { zone } = useSession()
const { data, error, loading, load } = useResource(() => readForeseen(props.of, props.rules))
onMounted(async () => {
  await load()
  if (data.value) emit('seen', data.value)
})

const left = computed(() => data.value?.foreseen.filter((row) => row.left).length ?? 0)
const summary = computed(() => {
  const rows = (data.value?.foreseen ?? []).filter((row) => !row.left)
  const many = (verdict: string | null) => rows.filter((row) => row.verdict === verdict).length
  const parts = (['CREATE', 'UPDATE', 'UNCHANGED', 'PASSED_BY', 'FAILED'] as const)
    .map((verdict) => ({ verdict, count: many(verdict) }))
    .filter((one) => one.count > 0)
    .map((one) => `${one.count} would be ${VERDICT_WORDS[one.verdict]}`)
  if (many(null)) parts.push(`${many(null)} cannot be told`)
  if (left.value) parts.push(`${left.value} left out`)
  return parts.join(', ').replace('would be failed', 'would fail')
})
const written = (fields: { name: string; value: string }[]) =>
  fields.map((field) => `${field.name}: ${momentText(field.value, zone.value)}`).join(' · ')
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <template v-if="data">
    <p v-if="data.inAll === 0" class="mid">Nothing waits.</p>
    <p v-else class="sum">
      <template v-if="data.foreseen.length < data.inAll"
        >Of the first {{ data.foreseen.length }} of {{ counted(data.inAll, 'event') }},
      </template>
      <template v-else>Of {{ counted(data.inAll, 'event') }}, </template>{{ summary }}.
    </p>
    <div
      v-if="data.foreseen.length"
      class="scroll"
      tabindex="0"
      role="region"
      aria-label="What each would become"
    >
      <table class="rows">
        <thead>
          <tr>
            <th scope="col">Event</th>
            <th scope="col">Was</th>
            <th scope="col">Would be</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in data.foreseen" :key="row.trace">
            <td>
              <RouterLink :to="{ name: 'trace', params: { id: row.trace } }">{{
                row.title
              }}</RouterLink>
              <small class="mid">{{ row.bridge }}</small>
            </td>
            <td>
              <template v-if="row.was">
                <VerdictText :verdict="row.was" />
                <small class="mid"
                  ><template v-if="row.version !== null">by version {{ row.version }}</template
                  ><template v-if="row.reason">: {{ row.reason }}</template></small
                >
              </template>
              <template v-else>waiting</template>
            </td>
            <td>
              <small v-if="row.left" class="bad">Left out: {{ row.left }}</small>
              <VerdictText v-if="row.verdict" :verdict="row.verdict" />
              <small v-if="row.because" :class="row.verdict === 'FAILED' ? 'bad' : 'mid'">{{
                row.because
              }}</small>
              <small v-if="row.fields.length" class="mid">{{ written(row.fields) }}</small>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </template>
</template>

<style scoped>
.sum {
  margin-top: 8px;
  font-weight: 650;
}
.scroll {
  max-height: 320px;
  overflow: auto;
  margin: 8px 0;
}
td {
  vertical-align: top;
  white-space: normal !important;
  overflow-wrap: anywhere;
  padding-top: 6px !important;
  padding-bottom: 6px !important;
  width: 33%;
}
small {
  display: block;
  line-height: 18px;
}
</style>
