<script setup lang="ts">
import { computed, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useResource } from '@/shared/composables/resource'
import { counted } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import LeavingDocument from './LeavingDocument.vue'
import RenameField from './RenameField.vue'
import ThingChoice from './ThingChoice.vue'
import UseTable from './UseTable.vue'
import { queryOf, readLeaving, readThings, readUses, type Wanted } from './api'

/** Which bridges use a thing, and what becomes of them without it. */
const route = useRoute()
const router = useRouter()
const { data: things, error: noThings, load: loadThings } = useResource(readThings)

const KINDS: Wanted['kind'][] = ['system', 'table', 'calendar', 'bridge', 'person', 'secret']
const said = (key: string) => String(route.query[key] ?? '')
const wanted = computed<Wanted>(() => ({
  kind: KINDS.find((kind) => kind === said('kind')) ?? 'system',
  system: said('system') || (things.value?.systems[0]?.id ?? ''),
  collection: said('collection'),
  field: said('field'),
  id: said('id'),
}))
const isAsked = computed(() =>
  wanted.value.kind === 'system' ? wanted.value.system !== '' : wanted.value.id !== '',
)
const isWhole = computed(() => wanted.value.kind === 'system' && !wanted.value.collection)
const { data, error, loading, load } = useResource(async () => ({
  uses: await readUses(wanted.value),
  leaving: isWhole.value ? await readLeaving(wanted.value.system) : null,
}))

void loadThings()
watch(
  () => (things.value && isAsked.value ? queryOf(wanted.value) : ''),
  (query) => {
    data.value = null
    if (query) void load()
  },
  { immediate: true },
)
function choose(next: Wanted) {
  const query = Object.fromEntries(Object.entries(next).filter(([, value]) => value !== ''))
  void router.replace({ query })
}
</script>

<template>
  <div class="page">
    <h1>What hangs</h1>
    <p v-if="noThings" class="bad" role="alert">{{ noThings }}</p>
    <ThingChoice v-if="things" :things="things" :wanted="wanted" @change="choose" />
    <ResourceState
      v-if="things && isAsked"
      :loading="loading"
      :error="error"
      :has="data !== null"
      @retry="load"
    />
    <template v-if="data && things">
      <p class="mid" role="status">
        {{ data.uses.bridges.length ? counted(data.uses.bridges.length, 'bridge') : 'No bridge' }}
        at work {{ data.uses.bridges.length > 1 ? 'use it' : 'uses it' }}.
      </p>
      <p v-if="data.uses.unknown.length" class="note bad">
        What these use is not known, since they cannot be used any more:
        {{ data.uses.unknown.join(', ') }}.
      </p>
      <UseTable v-if="data.uses.bridges.length" :lines="data.uses.bridges" />
      <RenameField v-if="wanted.field" :wanted="wanted" />
      <LeavingDocument
        v-if="data.leaving?.bridges.length"
        :leaving="data.leaving"
        :things="things"
      />
    </template>
  </div>
</template>

<style scoped>
.page {
  padding: 14px 20px;
}
h1 {
  margin-bottom: 6px;
}
</style>
