<script setup lang="ts">
import type { Finding } from './api'

/** What speaks for a cause and against it. */
defineProps<{ finding: Finding }>()
</script>

<template>
  <ul>
    <li v-for="sentence in finding.speaksFor" :key="sentence">
      <b class="mono" aria-label="for it">+</b>{{ sentence }}
    </li>
    <li v-for="sentence in finding.speaksAgainst" :key="sentence" class="mid">
      <b class="mono" aria-label="against it">−</b>{{ sentence }}
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 3px 0 3px 20px;
  text-indent: -20px;
  overflow-wrap: anywhere;
}
b {
  display: inline-block;
  width: 20px;
  text-indent: 0;
}
</style>
