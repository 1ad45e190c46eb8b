<script setup lang="ts">
import { onMounted } from 'vue'
import { useResource } from '@/shared/composables/resource'
import QuotaCourse from './QuotaCourse.vue'
import { readFilling } from './api'

/** How a system fills, once it was looked at more than once. */
const props = defineProps<{ system: string; of: string }>()
const { data, error, load } = useResource(() => readFilling(props.system))
onMounted(() => void load())
</script>

<template>
  <p v-if="error" class="note bad" role="alert">{{ error }}</p>
  <QuotaCourse v-else-if="data && data.points.length > 1" :filling="data" :of="of" />
</template>
