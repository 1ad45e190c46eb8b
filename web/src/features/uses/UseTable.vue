<script setup lang="ts">
import type { UseLine } from './api'

/** The bridges that use something, with the places where they do. */
defineProps<{ lines: UseLine[] }>()

const HOW: Record<UseLine['places'][number]['how'], string> = {
  HEARS: 'hears',
  LOOKS_UP: 'looks up',
  READS: 'reads',
  WRITES: 'writes',
  ASKS: 'asks',
}
const ORDER = ['HEARS', 'LOOKS_UP', 'READS', 'WRITES', 'ASKS'] as const

type Place = UseLine['places'][number]
/** Where what it does says all that its place says. */
const isPlain = ({ path }: Place) => path === 'from' || path === 'to' || path.startsWith('between/')
const said = ({ what, words }: Place) => [what, words].filter(Boolean).join(': ')

/** What a bridge does with it, each with its places. */
function deeds(line: UseLine) {
  return ORDER.map((how) => ({
    how,
    places: [
      ...new Set(
        line.places
          .filter((place) => place.how === how)
          .map((place) => (place.what && isPlain(place) ? place.what : said(place))),
      ),
    ],
  })).filter((deed) => deed.places.length)
}
</script>

<template>
  <table class="uses">
    <thead>
      <tr>
        <th>Bridge</th>
        <th>What it does with it</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="line in lines" :key="line.bridge">
        <td>
          <RouterLink :to="{ name: 'bridge', params: { id: line.bridge } }">{{
            line.name
          }}</RouterLink>
          <span v-if="line.held" class="held"> held</span>
        </td>
        <td>
          <p v-for="deed in deeds(line)" :key="deed.how">
            <b>{{ HOW[deed.how] }}</b> <span>{{ deed.places.join('; ') }}</span>
          </p>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
td,
th {
  text-align: left;
  vertical-align: top;
  padding: 6px 14px 6px 0;
  border-bottom: 1px solid var(--line);
}
td:first-child {
  width: 280px;
}
td a {
  font-weight: 650;
}
p {
  margin: 0 0 2px;
}
b {
  display: inline-block;
  min-width: 68px;
}
</style>
