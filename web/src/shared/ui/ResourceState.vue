<script setup lang="ts">
/** What a view shows while it reads, and when reading failed. */
defineProps<{ loading: boolean; error: string; has: boolean }>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <div v-if="error" class="note bad" role="alert">
    {{ error }}
    <button class="btn" type="button" @click="$emit('retry')">Try again</button>
  </div>
  <p v-else-if="loading && !has" class="reading mid" role="status">Reading…</p>
</template>

<style scoped>
.reading {
  padding: 16px 20px;
}
.btn {
  margin-left: 12px;
}
</style>
