<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'

/** What ran before, by when it began, with a way to each. */
defineProps<{
  title: string
  runs: { id: number; begunAt: string; to: RouteLocationRaw; words: string }[]
  current: number
}>()
const { now, zone } = useSession()
</script>

<template>
  <section aria-labelledby="earlier">
    <h2 id="earlier">{{ title }}</h2>
    <ul>
      <li v-for="one in runs" :key="one.id">
        <RouterLink :to="one.to" :aria-current="one.id === current ? 'page' : undefined">{{
          dayAndTime(one.begunAt, now, zone)
        }}</RouterLink>
        {{ one.words }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  padding: 0 20px 16px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  line-height: 26px;
}
a {
  display: inline-block;
  min-width: 130px;
  text-decoration: underline;
}
a[aria-current] {
  font-weight: 600;
}
</style>
