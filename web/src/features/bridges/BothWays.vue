<script setup lang="ts">
import type { BothWays } from './api'

/** The fields that two places keep alike, and which way each goes. */
defineProps<{ both: BothWays; left: string; right: string }>()
const arrows: Record<string, string> = {
  both: '↔',
  'to-right': '→',
  'to-left': '←',
  once: '→',
}
const words: Record<string, string> = {
  both: 'both ways',
  'to-right': 'to the right alone',
  'to-left': 'to the left alone',
  once: 'once, when a task is made',
}
</script>

<template>
  <table class="rows">
    <thead>
      <tr>
        <th scope="col">{{ left }}</th>
        <th scope="col" class="way"><span class="unseen">Which way</span></th>
        <th scope="col">{{ right }}</th>
        <th scope="col">If both changed</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="field in both.fields" :key="field.name">
        <td>
          <b>{{ field.left }}</b>
          <small v-for="step in field.toLeft" :key="step">{{ step }}</small>
        </td>
        <td class="way" :title="words[field.direction]">
          <span aria-hidden="true">{{ arrows[field.direction] }}</span>
          <span class="unseen">{{ words[field.direction] }}</span>
        </td>
        <td>
          <b>{{ field.right }}</b>
          <small v-for="step in field.toRight" :key="step">{{ step }}</small>
        </td>
        <td class="mid">{{ field.bothChanged || field.drift || words[field.direction] }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table.rows tbody td {
  height: auto;
  padding-block: 6px;
  vertical-align: top;
}
b {
  display: inline-block;
}
b::first-letter {
  text-transform: uppercase;
}
small {
  display: block;
  color: var(--ink-2);
}
.way {
  width: 40px;
  text-align: center;
  font-size: 16px;
}
</style>
