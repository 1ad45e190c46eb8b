<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, dayText } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import type { Filling } from './api'

/** How a system filled in the last days, the day on which it is full, and who fills it. */
const props = defineProps<{ filling: Filling; of: string }>()
const { now, zone } = useSession()

const WIDTH = 560
const HEIGHT = 96
const DAY = 86_400_000

const time = (at: string) => new Date(at).getTime()
const last = computed(() => props.filling.points.at(-1)!)
const begin = computed(() => time(props.filling.points[0]!.at))
const full = computed(() => (props.filling.fullAt ? time(props.filling.fullAt) : null))
/** As far as the course is drawn: to the day it is full, or half as far again as it was seen. */
const end = computed(() => {
  const seen = time(last.value.at) - begin.value
  const furthest = time(last.value.at) + Math.max(DAY, seen / 2)
  return full.value === null
    ? furthest
    : Math.min(Math.max(full.value, time(last.value.at)), furthest)
})
const top = computed(() => Math.max(...props.filling.points.map((one) => one.most)) * 1.05)
const x = (at: number) => ((at - begin.value) / (end.value - begin.value || 1)) * WIDTH
const y = (used: number) => HEIGHT - (used / top.value) * HEIGHT
const line = computed(() =>
  props.filling.points
    .map((one) => `${x(time(one.at)).toFixed(1)},${y(one.used).toFixed(1)}`)
    .join(' '),
)
const ahead = computed(() => {
  const pace = props.filling.perDay
  if (pace === null) return null
  const then = last.value.used + (pace * (end.value - time(last.value.at))) / DAY
  return { used: Math.min(Math.max(then, 0), last.value.most) }
})
const pace = computed(() => {
  const perDay = props.filling.perDay
  if (perDay === null) return 'It was not looked at long enough to tell how fast it fills.'
  const rounded = Math.abs(perDay) < 10 ? Math.abs(perDay).toFixed(1) : Math.abs(perDay).toFixed(0)
  if (perDay < 0.05 && perDay > -0.05)
    return `It does not fill: about as many ${props.of} go as come.`
  if (perDay < 0) return `It empties by ${rounded} ${props.of} a day.`
  const day = props.filling.fullAt
  const when = day ? `full on ${dayText(day, zone.value)} at this pace` : 'not full for years'
  return `${rounded} more ${props.of} a day: ${when}.`
})
const most = computed(() => props.filling.fillers[0]?.made ?? 1)
</script>

<template>
  <div class="filling">
    <figure>
      <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" :aria-label="pace">
        <line class="most" x1="0" :x2="WIDTH" :y1="y(last.most)" :y2="y(last.most)" />
        <polyline class="seen" :points="line" />
        <line
          v-if="ahead"
          class="ahead"
          :x1="x(time(last.at))"
          :y1="y(last.used)"
          :x2="x(end)"
          :y2="y(ahead.used)"
        />
      </svg>
      <figcaption class="mid">
        <span>{{ dayAndTime(filling.points[0]!.at, now, zone) }}</span>
        <b>{{ pace }}</b>
        <span>at most {{ last.most.toLocaleString('en') }}</span>
      </figcaption>
    </figure>
    <table v-if="filling.fillers.length" class="rows">
      <caption class="mid">
        Who fills it, in 14 days
      </caption>
      <tbody>
        <tr v-for="one in filling.fillers" :key="one.bridge">
          <th scope="row">
            <RouterLink :to="{ name: 'bridge', params: { id: one.bridge } }">{{
              one.name
            }}</RouterLink>
          </th>
          <td class="bar">
            <span :style="{ width: `${Math.max(2, (one.made / most) * 100)}%` }"></span>
          </td>
          <td class="n">{{ counted(one.made, 'task') }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.filling {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 24px;
  padding: 8px 0 12px;
}
figure {
  margin: 0;
}
svg {
  width: 100%;
  height: auto;
  border-bottom: 1px solid var(--line-2);
}
.seen {
  fill: none;
  stroke: var(--kelp);
  stroke-width: 1.8;
}
.ahead {
  stroke: var(--clay);
  stroke-width: 1.6;
  stroke-dasharray: 3 5;
}
.most {
  stroke: var(--failed);
  stroke-width: 1;
}
figcaption {
  display: flex;
  gap: 12px;
  justify-content: space-between;
  font-size: 12.5px;
}
table.rows {
  align-self: start;
}
caption {
  text-align: left;
  font-size: 12px;
}
table.rows th,
table.rows td {
  height: 26px;
  font-size: 13px;
  font-weight: 400;
  color: inherit;
}
.bar {
  width: 120px;
}
.bar span {
  display: block;
  height: 8px;
  background: var(--kelp);
}
</style>
