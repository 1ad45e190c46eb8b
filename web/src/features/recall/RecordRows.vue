<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import type { RecallRecord } from './api'
import { stand } from './words'

/** What was made, the last first, and whether each goes. */
defineProps<{ items: RecallRecord[]; choosing: boolean; busy: boolean }>()
const emit = defineEmits<{ choose: [record: RecallRecord, chosen: boolean] }>()
const { now, zone } = useSession()
const bad = (record: RecallRecord) =>
  record.state === 'FAILED' || (record.state === 'WAITING' && record.looked === 'CHANGED')
const ticked = (event: Event) => (event.target as HTMLInputElement).checked
</script>

<template>
  <table class="rows">
    <thead>
      <tr>
        <th scope="col" class="tick">Goes</th>
        <th scope="col">What was made</th>
        <th scope="col">Where</th>
        <th scope="col">Made</th>
        <th scope="col">Now</th>
        <th scope="col">Why it was made</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in items" :key="one.delivery">
        <td class="tick">
          <input
            v-if="one.state === 'WAITING'"
            type="checkbox"
            :checked="one.chosen"
            :disabled="!choosing || busy"
            :aria-label="`Take back ${one.title}`"
            @change="emit('choose', one, ticked($event))"
          />
          <span v-else class="dim">–</span>
        </td>
        <th scope="row">
          <a
            v-if="one.page && one.state !== 'TAKEN_BACK'"
            :href="one.page"
            target="_blank"
            rel="noopener"
            >{{ one.title }}</a
          >
          <template v-else>{{ one.title }}</template>
          <small class="mono dim">{{ one.record }}</small>
          <small v-if="one.puts.length" class="mid"
            >{{ one.state === 'TAKEN_BACK' ? 'Holds' : 'Would hold' }} again:
            {{ one.puts.map((put) => `${put.name}: ${put.value || 'nothing'}`).join(' · ') }}</small
          >
        </th>
        <td>{{ one.where }}</td>
        <td class="mono">{{ dayAndTime(one.madeAt, now, zone) }}</td>
        <td class="now" :class="{ bad: bad(one) }">
          {{ stand(one) }}
          <small v-if="one.changes && one.way !== 'NAME'" class="mid"
            >its bridge changed it {{ one.changes === 1 ? 'once' : `${one.changes} times` }}</small
          >
        </td>
        <td>
          <RouterLink :to="{ name: 'trace', params: { id: one.trace } }">Its trace</RouterLink>
          <small class="mid">{{ one.bridge }}</small>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
td,
th {
  vertical-align: top;
  padding-top: 6px !important;
  padding-bottom: 6px !important;
}
tbody th,
.now {
  font-weight: 400 !important;
  font-size: 14px !important;
  white-space: normal !important;
  overflow-wrap: anywhere;
}
tbody th {
  color: var(--ink) !important;
}
small {
  display: block;
  font-size: 12.5px;
  line-height: 18px;
}
.tick {
  width: 44px;
}
</style>
