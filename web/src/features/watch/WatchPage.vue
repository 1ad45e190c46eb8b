<script setup lang="ts">
import { onMounted, onUnmounted } from 'vue'
import { MissingTime, readGaps } from '@/features/gaps'
import { readCurrentRecalls, RecallLines } from '@/features/recall'
import { ResendLines, readResends } from '@/features/resend'
import { readPolls, readSystems, troubles } from '@/features/systems'
import { TraceTable } from '@/features/traces'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import ResourceState from '@/shared/ui/ResourceState.vue'
import BridgeLines from './BridgeLines.vue'
import PastBar from './PastBar.vue'
import NeedsYou from './NeedsYou.vue'
import { readLatest, readWatch } from './api'

const LATEST = 12
const REST = 60_000
const { data, error, loading, load } = useResource(async () => {
  const [watch, latest, systems, polls, resends, recalls, gaps] = await Promise.all([
    readWatch(),
    readLatest(),
    readSystems(),
    readPolls(),
    readResends(),
    readCurrentRecalls(),
    readGaps(),
  ])
  return {
    watch,
    resends,
    recalls,
    gaps,
    latest: latest.traces.slice(0, LATEST),
    troubles: troubles(systems, polls),
  }
})
onChange(
  () => true,
  () => void load(),
)
const timer = setInterval(() => void load(), REST)
onMounted(() => void load())
onUnmounted(() => clearInterval(timer))
</script>

<template>
  <div class="watch">
    <h1 class="unseen">Watch</h1>
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <template v-if="data">
      <PastBar v-if="data.watch.past" :past="data.watch.past" :now="data.watch.now" />
      <MissingTime v-for="gap in data.gaps" :key="gap.id" :gap="gap" @seen="load" />
      <NeedsYou
        :incidents="data.watch.incidents"
        :in-all="data.watch.incidentsInAll"
        :bridges="data.watch.bridges"
        :troubles="data.troubles"
        :unreadable="data.watch.unreadable"
        :blind="data.watch.incidentsProblem"
        :untold="data.watch.tellingProblem"
        :twice="data.watch.possibleDuplicates"
        :apart="data.watch.disagreements"
        :checks="data.watch.checks"
        :broken="data.watch.broken"
        :calendars="data.watch.calendars"
        :places="data.watch.places"
        :tests="data.watch.tests"
        :no-room="data.watch.noRoom"
        @changed="load"
      />
      <RecallLines :recalls="data.recalls" />
      <ResendLines :resends="data.resends" @stopped="load" />
      <BridgeLines :watch="data.watch" />
      <section aria-labelledby="latest">
        <h2 id="latest">
          Latest
          <small> as it comes in, <RouterLink to="/traces">all traces</RouterLink> </small>
        </h2>
        <p v-if="data.latest.length === 0" class="mid">
          Nothing has come in yet. Send something in at the source, and it shows up here.
        </p>
        <TraceTable v-else :traces="data.latest" />
      </section>
    </template>
  </div>
</template>

<style scoped>
.watch {
  padding: 16px 20px;
}
</style>
