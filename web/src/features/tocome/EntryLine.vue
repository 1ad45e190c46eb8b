<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { clockText } from '@/shared/format/time'
import type { Entry } from './api'
import { STATES } from './words'

/** A time of what is to come, or of what came: when, what, by which bridge, and how it stands. */
defineProps<{ entry: Entry; wide: boolean }>()
const { zone } = useSession()
</script>

<template>
  <span class="entry" :class="[entry.state.toLowerCase(), { wide }]">
    <span class="mono at">{{ clockText(new Date(entry.at), zone).time }}</span>
    <span class="what">
      <RouterLink
        class="title"
        :to="
          entry.trace
            ? { name: 'trace', params: { id: entry.trace } }
            : { name: 'bridge', params: { id: entry.bridge } }
        "
        >{{ entry.title }}</RouterLink
      >
      <span class="mid"
        >{{ entry.bridgeName }}<template v-if="wide">, at {{ entry.system }}</template
        ><template v-if="entry.person">, {{ entry.person }}</template></span
      >
      <span v-if="STATES[entry.state]" class="state" :title="entry.what"
        >{{ STATES[entry.state]
        }}<template v-if="wide && entry.what">: {{ entry.what }}</template></span
      >
      <span v-else-if="entry.what" class="mid">{{ entry.what }}</span>
    </span>
  </span>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 1fr;
  gap: 0 12px;
  padding: 5px 8px;
  border-left: 3px solid var(--line-2);
  overflow-wrap: anywhere;
}
.entry.wide {
  grid-template-columns: 52px minmax(0, 1fr);
}
.what {
  display: grid;
}
.title {
  font-weight: 650;
}
.at,
.mid,
.state {
  font-size: 13px;
}
.to_come {
  border-left-color: var(--clay);
}
.came {
  border-left-color: var(--line);
}
.missed,
.made_up_for,
.waits,
.held {
  border-left-color: var(--held);
}
.missed .state,
.made_up_for .state,
.waits .state,
.held .state {
  color: var(--held);
}
.fails {
  border-left-color: var(--failed);
}
.fails .state {
  color: var(--failed);
}
.came .title,
.passed_by .title,
.missed .title {
  font-weight: 400;
}
</style>
