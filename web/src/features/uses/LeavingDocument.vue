<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/shared/composables/session'
import { counted } from '@/shared/format/words'
import { dayText } from '@/shared/format/time'
import type { Leaving, Things } from './api'

/** What each bridge would need if a system were left; made to be printed. */
const props = defineProps<{ leaving: Leaving; things: Things }>()
const { now, zone } = useSession()
const names = computed(() => new Map(props.things.tables.map((table) => [table.id, table.name])))
const print = () => window.print()
</script>

<template>
  <section class="leaving" aria-labelledby="leaving">
    <h2 id="leaving">
      If we leave {{ leaving.name }}
      <button class="btn bare no-print" @click="print">Print it</button>
    </h2>
    <p class="mid">
      {{ counted(leaving.bridges.length, 'bridge') }}
      {{ leaving.bridges.length === 1 ? 'hangs' : 'hang' }} on it, as of
      {{ dayText(now.toISOString(), zone) }}. Each needs in its place:
    </p>
    <article v-for="one in leaving.bridges" :key="one.bridge">
      <h3>
        {{ one.name }}
        <small>{{ one.owner ? `asked about it: ${one.owner}` : 'nobody is said to own it' }}</small>
      </h3>
      <p class="mid">{{ one.purpose }}</p>
      <ul>
        <li v-for="(need, i) in one.needs" :key="i">
          <b>{{ need.what }}</b> <span class="mid">in place of {{ need.collection }}</span>
          <ul v-if="need.fields.length">
            <li v-for="field in need.fields" :key="field">{{ field }}</li>
          </ul>
          <p v-if="need.tables.length">
            What these tables say of {{ leaving.name }} is entered anew:
            {{ need.tables.map((id) => names.get(id) ?? id).join(', ') }}
          </p>
        </li>
      </ul>
    </article>
  </section>
</template>

<style scoped>
section {
  margin-top: 22px;
}
article {
  break-inside: avoid;
  border-top: 1px solid var(--line);
  padding: 10px 0;
}
h3 {
  margin: 0;
}
h3 small {
  font-weight: 400;
  color: var(--ink-2);
  margin-left: 8px;
}
p {
  margin: 2px 0 6px;
}
ul {
  margin: 0 0 4px;
  padding-left: 18px;
}
ul ul {
  columns: 2;
  max-width: 900px;
}
</style>
