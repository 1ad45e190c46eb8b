<script setup lang="ts">
import { computed, watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { readCopies } from './api'

/** Which bridge a bridge is a copy of, and which copies it has; nothing where there are none. */
const props = defineProps<{ id: string }>()
const { data, error, load } = useResource(() => readCopies(props.id))
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)
const behind = computed(
  () => data.value?.copies.filter((copy) => copy.follows || copy.both.length).length ?? 0,
)
</script>

<template>
  <p v-if="error" class="bad" role="alert">Its copies could not be read: {{ error }}</p>
  <template v-if="data && (data.original || data.copies.length)">
    <h2 class="copies">Copies</h2>
    <p v-if="data.original">
      It is a copy of
      <RouterLink :to="{ name: 'bridge', params: { id: data.original } }">{{
        data.originalName
      }}</RouterLink>;
      <RouterLink :to="{ name: 'copies', params: { id: data.original } }"
        >how it stands to it</RouterLink
      >.
    </p>
    <p v-if="data.copies.length">
      <RouterLink :to="{ name: 'copies', params: { id } }">{{
        data.copies.length === 1 ? '1 copy' : `${data.copies.length} copies`
      }}</RouterLink>,
      {{
        behind
          ? `of which ${behind} ${behind === 1 ? 'does' : 'do'} not follow it yet`
          : 'all as it is but for what is their own'
      }}.
    </p>
  </template>
</template>

<style scoped>
.copies {
  margin-top: 20px;
}
</style>
