<script setup lang="ts">
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import type { Schemas } from '@/shared/http/client'
import { VERDICT_WORDS } from '@/shared/format/words'

/** What was written from here and came back as this event, and what this one led to. */
const props = defineProps<{ chain: Schemas['ChainView'] }>()
const earlier = () => `${props.chain.earlier} earlier ${props.chain.earlier === 1 ? 'one' : 'ones'}`
</script>

<template>
  <nav v-if="chain.before.length || chain.caused.length" class="chain" aria-label="Chain of causes">
    <template v-if="chain.before.length">
      <span class="mid">Caused by our own writing:</span>
      <ol>
        <li v-if="chain.earlier" class="mid">{{ earlier() }}</li>
        <li v-for="link in chain.before" :key="link.id">
          <RouterLink
            :to="{ name: 'trace', params: { id: link.id } }"
            :title="`${link.title}: ${VERDICT_WORDS[link.verdict]}`"
            ><VerdictMark :kind="link.verdict" />{{ link.bridgeName }}</RouterLink
          >
        </li>
        <li aria-current="step">this one</li>
      </ol>
    </template>
    <template v-if="chain.caused.length">
      <span class="mid">{{ chain.before.length ? 'and led to' : 'What it wrote led to' }}</span>
      <ul>
        <li v-for="link in chain.caused" :key="link.id">
          <RouterLink
            :to="{ name: 'trace', params: { id: link.id } }"
            :title="`${link.title}: ${VERDICT_WORDS[link.verdict]}`"
            ><VerdictMark :kind="link.verdict" />{{ link.bridgeName }}</RouterLink
          >
        </li>
      </ul>
    </template>
  </nav>
</template>

<style scoped>
.chain {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  padding: 6px 20px;
  border-bottom: 1px solid var(--line);
}
ol,
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
ol li:not(:last-child)::after {
  content: '→';
  margin-left: 8px;
  color: var(--mid);
}
a {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  text-decoration: underline;
}
</style>
