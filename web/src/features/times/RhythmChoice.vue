<script setup lang="ts">
import { DAYS, MONTHS, NTH, UNITS, type Rhythm, type Unit } from './rhythm'

/** How often something comes round, by choices. */
const props = defineProps<{ rhythm: Rhythm }>()
const emit = defineEmits<{ change: [rhythm: Rhythm] }>()

const value = (event: Event) => (event.target as HTMLInputElement).value
const change = (parts: Partial<Rhythm>) => emit('change', { ...props.rhythm, ...parts })

function often(event: Event) {
  const every = Number(value(event))
  if (Number.isInteger(every) && every > 0 && every < 1000) change({ every })
}

/** The last of the chosen days stays: a week without a day would be none. */
function toggle(day: string) {
  const days = props.rhythm.days.includes(day)
    ? props.rhythm.days.filter((one) => one !== day)
    : [...props.rhythm.days, day]
  if (days.length) change({ days })
}

/** `day 15`, `last day`, or `weekday` of a month. */
const which = () =>
  props.rhythm.monthDay === -1 ? 'last' : props.rhythm.monthDay === 0 ? 'weekday' : 'day'
const choose = (kind: string) =>
  change({ monthDay: kind === 'last' ? -1 : kind === 'weekday' ? 0 : 1 })
</script>

<template>
  <p class="saying choices">
    <span class="mid">every</span>
    <input
      class="in few"
      type="number"
      min="1"
      max="999"
      aria-label="Every how many"
      :value="rhythm.every"
      @change="often"
    />
    <select
      class="in"
      aria-label="Hours, days, weeks, months or years"
      :value="rhythm.unit"
      @change="change({ unit: value($event) as Unit, monthDay: Math.max(rhythm.monthDay, 1) })"
    >
      <option v-for="(words, unit) in UNITS" :key="unit" :value="unit">
        {{ words }}{{ rhythm.every > 1 ? 's' : '' }}
      </option>
    </select>
    <template v-if="rhythm.unit === 'WEEKLY'">
      <span class="mid">on</span>
      <span class="days" role="group" aria-label="On which days">
        <button
          v-for="(name, day) in DAYS"
          :key="day"
          type="button"
          class="day"
          :aria-pressed="rhythm.days.includes(day)"
          :aria-label="name"
          @click="toggle(day)"
        >
          {{ name.slice(0, 3) }}
        </button>
      </span>
    </template>
    <template v-if="rhythm.unit === 'MONTHLY'">
      <span class="mid">on</span>
      <select
        class="in"
        aria-label="On which day of the month"
        :value="which()"
        @change="choose(value($event))"
      >
        <option value="day">day</option>
        <option value="last">the last day</option>
        <option value="weekday">the</option>
      </select>
      <template v-if="which() === 'weekday'">
        <select
          class="in"
          aria-label="Which of them"
          :value="rhythm.nth"
          @change="change({ nth: Number(value($event)) })"
        >
          <option v-for="nth in [1, 2, 3, 4, -1]" :key="nth" :value="nth">{{ NTH[nth] }}</option>
        </select>
        <select
          class="in"
          aria-label="Which day of the week"
          :value="rhythm.weekday"
          @change="change({ weekday: value($event) })"
        >
          <option v-for="(name, day) in DAYS" :key="day" :value="day">{{ name }}</option>
        </select>
      </template>
    </template>
    <template v-if="rhythm.unit === 'YEARLY'">
      <span class="mid">on</span>
      <select
        class="in"
        aria-label="In which month"
        :value="rhythm.month"
        @change="change({ month: Number(value($event)) })"
      >
        <option v-for="(name, i) in MONTHS" :key="name" :value="i + 1">{{ name }}</option>
      </select>
    </template>
    <input
      v-if="rhythm.unit === 'YEARLY' || (rhythm.unit === 'MONTHLY' && which() === 'day')"
      class="in few"
      type="number"
      min="1"
      max="31"
      aria-label="Which day of the month"
      :value="rhythm.monthDay"
      @change="change({ monthDay: Math.min(31, Math.max(1, Number(value($event)) || 1)) })"
    />
  </p>
</template>

<style scoped>
.few {
  width: 64px;
}
.days {
  display: inline-flex;
  gap: 3px;
}
.day {
  font: inherit;
  font-size: 13px;
  border: 1px solid var(--line-2);
  border-radius: 4px;
  background: var(--ground);
  color: var(--ink-2);
  padding: 3px 7px;
  cursor: pointer;
}
.day[aria-pressed='true'] {
  background: var(--panel);
  border-color: var(--clay);
  color: var(--ink);
  font-weight: 650;
  box-shadow: inset 0 -2px 0 var(--clay);
}
</style>
