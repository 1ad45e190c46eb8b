<script setup lang="ts">
/** What a note says, as it was typed, and where it leads. */
defineProps<{ words: string; link: string }>()
</script>

<template>
  <span class="words">{{ words }}</span>
  <a v-if="link" :href="link" target="_blank" rel="noopener">{{
    link.replace(/^https?:\/\//, '')
  }}</a>
</template>

<style scoped>
.words {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
a {
  margin-left: 6px;
  text-decoration: underline;
  overflow-wrap: anywhere;
}
</style>
