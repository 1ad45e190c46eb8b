<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import type { Pair } from './api'

/** The pairs that an id belongs to, whichever side it is of. */
defineProps<{ pairs: Pair[]; id: string }>()
const { now, zone } = useSession()
</script>

<template>
  <p v-if="pairs.length === 0" class="none mid">
    No pair has a record or a task with the id “{{ id }}”. Ids are compared whole, as their systems
    write them.
  </p>
  <article v-for="pair in pairs" :key="`${pair.bridge} ${pair.matchKey}`">
    <h2>
      <span class="mono">{{ pair.record }}</span> of {{ pair.from }}
      <span class="mid">and{{ ' ' }}</span>
      <template v-if="pair.task">
        <a v-if="pair.page" class="mono" :href="pair.page" target="_blank" rel="noopener">{{
          pair.task
        }}</a>
        <span v-else class="mono">{{ pair.task }}</span>
        of {{ pair.to }}
      </template>
      <template v-else>no task of {{ pair.to }} yet</template>
    </h2>
    <p class="mid">
      By
      <RouterLink :to="{ name: 'bridge', params: { id: pair.bridge } }">{{
        pair.bridgeName
      }}</RouterLink>, known by {{ pair.matchKey }}; made {{ dayAndTime(pair.madeAt, now, zone) }},
      written to last {{ dayAndTime(pair.changedAt, now, zone) }}.
      <b v-if="pair.stands">{{ pair.stands }}.</b>
      <RouterLink :to="{ name: 'traces', query: { text: pair.record, span: '30d' } }"
        >See its traces</RouterLink
      >
    </p>
    <dl v-if="pair.fields.length">
      <template v-for="field in pair.fields" :key="field.name">
        <dt class="mid">{{ field.name }}</dt>
        <dd>{{ field.text }}</dd>
      </template>
    </dl>
  </article>
</template>

<style scoped>
article {
  padding: 10px 20px;
  border-bottom: 1px solid var(--line);
}
a {
  text-decoration: underline;
}
.none {
  padding: 10px 20px;
}
h2 {
  font-weight: 600;
}
p {
  margin: 0 0 6px;
}
dl {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 2px 12px;
  margin: 0;
  font-size: 13px;
}
dd {
  margin: 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
