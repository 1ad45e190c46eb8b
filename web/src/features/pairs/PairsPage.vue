<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import ResourceState from '@/shared/ui/ResourceState.vue'
import BothDisagree from './BothDisagree.vue'
import FoundPairs from './FoundPairs.vue'
import KeptPairPart from './KeptPair.vue'
import PossibleDuplicates from './PossibleDuplicates.vue'
import {
  findKeptPairs,
  findPairs,
  readDisagreements,
  readPossibles,
  type KeptPair,
  type Pair,
} from './api'

const route = useRoute()
const router = useRouter()
const { data, error, loading, load } = useResource(async () => {
  const [twice, apart] = await Promise.all([readPossibles(), readDisagreements()])
  return { twice, apart }
})
void load()
onChange(
  () => true,
  () => void load(),
)

/** What is looked at: what the address says, else what waits. */
const shown = computed(() => {
  const wanted = String(route.query.show ?? '')
  if (wanted) return wanted === 'duplicates' ? 'duplicates' : 'disagreements'
  return data.value?.apart.open ? 'disagreements' : 'duplicates'
})
/** What was answered of it and is not kept yet. */
const pending = ref(0)
watch(shown, () => (pending.value = 0))
const queues = computed(() =>
  data.value
    ? [
        { show: 'disagreements', words: 'Both sides disagree', open: data.value.apart.open },
        { show: 'duplicates', words: 'Possible duplicates', open: data.value.twice.open },
      ]
    : [],
)

const asked = computed(() => String(route.query.id ?? ''))
const text = ref(asked.value)
const found = ref<{ pairs: Pair[]; kept: KeptPair[] } | null>(null)
const lost = ref('')
async function find() {
  const id = asked.value
  lost.value = ''
  if (!id) return
  try {
    const [pairs, kept] = await Promise.all([findPairs(id), findKeptPairs(id)])
    // What is kept alike stands by itself, and not once for each side.
    const alike = new Set(kept.map((one) => one.bridge))
    found.value = { pairs: pairs.filter((one) => !alike.has(one.bridge)), kept }
  } catch (e) {
    lost.value = (e as Error).message
  }
}
watch(
  asked,
  (id) => {
    text.value = id
    found.value = null
    void find()
  },
  { immediate: true },
)
const search = () =>
  router.push({ name: 'pairs', query: text.value.trim() ? { id: text.value.trim() } : {} })
</script>

<template>
  <div class="heading">
    <h1>Pairs</h1>
    <nav v-if="!asked" aria-label="What waits">
      <RouterLink
        v-for="queue in queues"
        :key="queue.show"
        :to="{ name: 'pairs', query: { show: queue.show } }"
        :aria-current="shown === queue.show ? 'page' : undefined"
        >{{ queue.words }}
        <b>{{ queue.open - (shown === queue.show ? pending : 0) }}</b></RouterLink
      >
    </nav>
    <span v-if="data?.twice.unlooked && shown === 'duplicates'" class="mid"
      >{{ data.twice.unlooked }} still to be looked at</span
    >
    <span class="gap"></span>
    <form role="search" @submit.prevent="search">
      <label for="pair" class="mid">Find a pair by the id of its record or task</label>
      <input id="pair" v-model="text" class="in" type="search" />
      <button class="btn" type="submit">Find</button>
    </form>
  </div>
  <p v-if="lost" class="note bad" role="alert">{{ lost }}</p>
  <template v-if="asked && found">
    <KeptPairPart v-for="pair in found.kept" :key="pair.key" :pair="pair" @changed="find" />
    <FoundPairs v-if="found.pairs.length || !found.kept.length" :id="asked" :pairs="found.pairs" />
    <p class="back"><RouterLink to="/pairs">Back to what waits</RouterLink></p>
  </template>
  <template v-else-if="!asked">
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <div v-if="data" class="queue">
      <BothDisagree
        v-if="shown === 'disagreements'"
        :page="data.apart"
        :load="load"
        @pending="pending = $event"
      />
      <PossibleDuplicates v-else :page="data.twice" :load="load" @pending="pending = $event" />
    </div>
  </template>
</template>

<style scoped>
form {
  display: flex;
  gap: 8px;
  align-items: center;
}
nav {
  display: flex;
  gap: 4px;
}
nav a {
  padding: 3px 9px;
  border-radius: 4px;
  color: var(--ink-2);
  text-decoration: none;
}
nav a[aria-current='page'] {
  background: var(--panel);
  color: var(--ink);
  font-weight: 600;
}
.back {
  padding: 10px 20px;
}
.queue {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.queue :deep(.none) {
  padding: 10px 20px;
}
.queue :deep(.two) {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(280px, 380px) minmax(0, 1fr);
  min-height: 0;
}
.queue :deep(.two > :first-child) {
  border-right: 1px solid var(--line-2);
  overflow: auto;
}
</style>
