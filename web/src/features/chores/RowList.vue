<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { clockText } from '@/shared/format/time'
import { capital } from '@/shared/format/words'
import type { RowsView } from './api'

/** Rows by a draft: when each comes round, and those that cannot be used with why. */
defineProps<{ rows: RowsView['rows']; record: string }>()
const { zone } = useSession()

const made = (at: string) => {
  const { day: text, time } = clockText(new Date(at), zone.value)
  return `${text} ${time}`
}
const day = (local: string) => {
  const { day: text } = clockText(new Date(`${local.slice(0, 16)}:00Z`), 'UTC')
  return `${text} ${local.slice(0, 4)}`
}
</script>

<template>
  <table v-if="rows.length" class="timed">
    <thead>
      <tr>
        <th>{{ capital(record) }}</th>
        <th>When it comes round</th>
        <th>Due next</th>
        <th>Made</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.record">
        <td>{{ row.name }}</td>
        <td v-if="row.problem" class="bad" colspan="3">{{ row.problem }}</td>
        <td v-else-if="row.rests" class="mid" colspan="3">{{ capital(row.rests) }}</td>
        <template v-else>
          <td>{{ capital(row.words) }}</td>
          <td class="when">{{ row.local ? day(row.local) : 'no more' }}</td>
          <td class="when mid">{{ row.make ? made(row.make) : '' }}</td>
        </template>
      </tr>
    </tbody>
  </table>
  <p v-else class="mid">No row is known, and none could be read.</p>
</template>
