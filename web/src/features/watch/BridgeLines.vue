<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { age, dayAndTime, span } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import RhythmBars from './RhythmBars.vue'
import type { BridgeLine, Watch } from './api'

defineProps<{ watch: Watch }>()
const { now, zone } = useSession()

function lastEvent(line: BridgeLine): string {
  return line.lastEvent ? `${age(line.lastEvent, now.value)} ago` : 'none yet'
}
</script>

<template>
  <section aria-labelledby="live">
    <h2 id="live">
      Live bridges
      <small
        >last 24 hours, a bar for each half hour before what usually comes;
        <RouterLink to="/to-come">what is to come</RouterLink></small
      >
    </h2>
    <p v-if="watch.bridges.length === 0" class="mid">
      No bridge is live. Put a bridge document into the setup folder and start again.
    </p>
    <table v-else class="rows">
      <thead>
        <tr>
          <th scope="col">Bridge</th>
          <th scope="col">Rhythm</th>
          <th scope="col" class="n">Created</th>
          <th scope="col" class="n">Updated</th>
          <th scope="col" class="n">Unchanged</th>
          <th scope="col" class="n">Passed by</th>
          <th scope="col" class="n">Failed</th>
          <th scope="col" class="n">Waiting</th>
          <th scope="col" class="n" title="The longest from arrival to task">Slowest</th>
          <th scope="col" class="n">Last event</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in watch.bridges" :key="line.id">
          <th scope="row">
            <RouterLink :to="{ name: 'bridge', params: { id: line.id } }">{{
              line.name
            }}</RouterLink>
            <span
              v-if="line.heldSince"
              class="held"
              :title="`${line.heldBecause}, since ${dayAndTime(line.heldSince, now, zone)}`"
              ><VerdictMark kind="HELD" /> held
            </span>
            <span class="mid"
              >{{ line.source }} {{ line.bothWays ? '↔' : '→' }} {{ line.target }}</span
            >
          </th>
          <td>
            <RouterLink
              :to="{ name: 'traces', query: { bridge: line.id, span: '24h' } }"
              :aria-label="`Traces of ${line.name} in the last 24 hours`"
            >
              <RhythmBars :bars="line.bars" />
            </RouterLink>
          </td>
          <td class="n">{{ line.counts.made }}</td>
          <td class="n">{{ line.counts.changed }}</td>
          <td class="n">{{ line.counts.unchanged }}</td>
          <td class="n">{{ line.counts.passedBy }}</td>
          <td class="n" :class="{ bad: line.counts.failed > 0 }">{{ line.counts.failed }}</td>
          <td class="n">
            {{ line.waiting }}
            <span v-if="line.waitingSince" class="dim">for {{ age(line.waitingSince, now) }}</span>
          </td>
          <td class="n">{{ line.worstMillis === null ? '–' : span(line.worstMillis * 1000) }}</td>
          <td
            class="n"
            data-test="last-event"
            :title="line.lastEvent ? dayAndTime(line.lastEvent, now, zone) : ''"
          >
            {{ lastEvent(line) }}
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 20px;
}
td,
tbody th {
  height: 44px !important;
}
tbody th {
  font-weight: 400 !important;
  font-size: 14px !important;
  color: var(--ink) !important;
}
tbody th a {
  font-weight: 650;
  color: var(--ink);
  margin-right: 4px;
}
.bad {
  color: var(--failed);
  font-weight: 700;
}
td a {
  display: inline-block;
}
</style>
