<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import UsersAndChanges from './UsersAndChanges.vue'
import {
  keepCalendar,
  readCalendar,
  readHolidays,
  removeCalendar,
  type CalendarView,
  type HolidayView,
} from './api'
import { monthsOf, WEEKDAYS, type DayOff } from './year'

/** A working calendar as a year at a glance: which days are worked on, and which are not. */
const props = defineProps<{ id: string }>()
const router = useRouter()
const view = ref<CalendarView | null>(null)
const name = ref('')
const weekdays = ref<string[]>([])
const holidays = ref<HolidayView[]>([])
const closures = ref<{ first: string; last: string; why: string }[]>([])
const enteredUntil = ref('')
const year = ref(0)
const kept = ref('')
const said = ref('')
const { busy, error, during } = useActing()
const file = useTemplateRef<HTMLInputElement>('file')

const state = () =>
  JSON.stringify([name.value, weekdays.value, holidays.value, closures.value, enteredUntil.value])
const changed = computed(() => state() !== kept.value)
const off = computed<Map<string, DayOff>>(() => {
  const days = new Map<string, DayOff>()
  for (const one of closures.value) {
    if (!one.first || !one.last) continue
    const last = new Date(`${one.last}T00:00:00Z`)
    for (let at = new Date(`${one.first}T00:00:00Z`), i = 0; at <= last && i < 4000; i++) {
      days.set(at.toISOString().slice(0, 10), { sort: 'closure', name: one.why || 'closed' })
      at = new Date(at.getTime() + 86_400_000)
    }
  }
  for (const one of holidays.value)
    days.set(one.day, { sort: 'holiday', name: one.name || 'holiday' })
  return days
})
const months = computed(() => (year.value ? monthsOf(year.value, weekdays.value, off.value) : []))
const ofYear = computed(() =>
  holidays.value
    .map((one, place) => ({ one, place }))
    .filter(({ one }) => one.day.startsWith(`${year.value}-`))
    .sort((a, b) => a.one.day.localeCompare(b.one.day)),
)
const covers = computed(() => {
  const years = [...new Set(holidays.value.map((one) => Number(one.day.slice(0, 4))))].sort()
  return years.length ? `Holidays stand for ${years.join(', ')}.` : 'No holidays stand here yet.'
})

async function load() {
  error.value = ''
  try {
    const read = await readCalendar(props.id)
    view.value = read
    name.value = read.calendar.name
    weekdays.value = [...read.weekdays]
    holidays.value = read.holidays.map((one) => ({ ...one }))
    closures.value = read.closures.map((one) => ({ ...one }))
    enteredUntil.value = read.enteredUntil ?? ''
    year.value ||= Number(read.today.slice(0, 4))
    kept.value = state()
  } catch (e) {
    error.value = (e as Error).message
  }
}
onMounted(load)

const keep = () =>
  during(async () => {
    said.value = ''
    await keepCalendar(props.id, {
      name: name.value.trim(),
      weekdays: weekdays.value,
      holidays: holidays.value.filter((one) => one.day),
      closures: closures.value.filter((one) => one.first && one.last),
      enteredUntil: enteredUntil.value || null,
      basedOn: view.value?.basedOn ?? 0,
    })
    await load()
    said.value = 'Kept. Bridges that use it see it from now on.'
  })

const remove = () =>
  during(async () => {
    said.value = ''
    await removeCalendar(props.id)
    await router.push({ name: 'tables' })
  })

const fromFile = () =>
  during(async () => {
    said.value = ''
    const chosen = file.value?.files?.[0]
    if (!chosen) return
    const read = await readHolidays(await chosen.text())
    const known = new Set(holidays.value.map((one) => one.day))
    const fresh = read.holidays.filter((one) => !known.has(one.day))
    holidays.value = [...holidays.value, ...fresh]
    const left = read.leftOut ? ` ${read.leftOut} events with a time of day were left out.` : ''
    said.value = `${fresh.length} of ${read.holidays.length} days from ${read.firstYear} to ${read.lastYear} are new.${left}`
    file.value!.value = ''
  })

function toggle(day: string) {
  holidays.value = holidays.value.some((one) => one.day === day)
    ? holidays.value.filter((one) => one.day !== day)
    : [...holidays.value, { day, name: '' }]
}

function rename(place: number, called: string) {
  holidays.value = holidays.value.map((one, i) => (i === place ? { ...one, name: called } : one))
}
const setWeekday = (day: string, on: boolean) => {
  weekdays.value = WEEKDAYS.filter((one) => (one === day ? on : weekdays.value.includes(one)))
}
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="heading">
    <h1>{{ view?.calendar.name ?? id }}</h1>
    <span class="mid mono">{{ id }}</span>
    <span class="gap"></span>
    <span v-if="said" class="mid" role="status">{{ said }}</span>
    <RouterLink class="btn bare" :to="{ name: 'uses', query: { kind: 'calendar', id } }"
      >What hangs on it</RouterLink
    >
    <button class="btn" @click="file?.click()">Holidays from a file…</button>
    <input
      ref="file"
      class="unseen"
      type="file"
      accept=".ics,text/calendar"
      aria-label="An iCalendar file"
      @change="fromFile"
    />
    <button class="btn" :disabled="busy || !view" @click="remove">Remove the calendar</button>
    <button class="btn main" :disabled="busy || !changed" @click="keep">Keep</button>
  </div>
  <p v-if="error" class="bad note" role="alert">{{ error }}</p>
  <div v-if="view" class="page">
    <section class="left" aria-label="What is said">
      <label class="line"
        ><span class="mid">Called</span> <input v-model="name" class="in"
      /></label>
      <fieldset>
        <legend>Worked on</legend>
        <label v-for="day in WEEKDAYS" :key="day" class="day"
          ><input
            type="checkbox"
            :checked="weekdays.includes(day)"
            @change="setWeekday(day, ($event.target as HTMLInputElement).checked)"
          />
          {{ day[0]!.toUpperCase() + day.slice(1) }}</label
        >
      </fieldset>
      <h2>Holidays of {{ year }}</h2>
      <p v-if="!ofYear.length" class="held">
        None. Days of {{ year }} are moved as if there were none.
      </p>
      <div v-for="{ one, place } in ofYear" :key="one.day" class="off">
        <span class="mono">{{ one.day }}</span>
        <input
          class="in"
          :aria-label="`What ${one.day} is called`"
          placeholder="holiday"
          :value="one.name"
          @input="rename(place, value($event))"
        />
        <button class="btn bare" :aria-label="`Take ${one.day} out`" @click="toggle(one.day)">
          ✕
        </button>
      </div>
      <h2>Closures</h2>
      <div v-for="(one, i) in closures" :key="i" class="closure">
        <input v-model="one.first" class="in" type="date" aria-label="First day of a closure" />
        <input v-model="one.last" class="in" type="date" aria-label="Last day of the closure" />
        <input v-model="one.why" class="in" placeholder="why" aria-label="Why it is closed" />
        <button
          class="btn bare"
          :aria-label="`Take the closure from ${one.first} out`"
          @click="closures = closures.filter((_, k) => k !== i)"
        >
          ✕
        </button>
      </div>
      <button class="btn bare" @click="closures = [...closures, { first: '', last: '', why: '' }]">
        Add a closure
      </button>
      <h2>Up to when it is entered</h2>
      <label class="line"
        ><span class="mid">All days off until</span>
        <input v-model="enteredUntil" class="in" type="date"
      /></label>
      <p class="mid">
        {{
          enteredUntil
            ? 'Watch tells of it sixty days before.'
            : 'Not said, so it is taken from the years that have holidays and closures.'
        }}
      </p>
    </section>
    <section class="year" aria-label="The year">
      <div class="nav">
        <button class="btn" aria-label="The year before" @click="year--">←</button>
        <b>{{ year }}</b>
        <button class="btn" aria-label="The year after" @click="year++">→</button>
        <span class="mid">{{ covers }} Press a day to make it a holiday or not.</span>
      </div>
      <div class="months">
        <table v-for="month in months" :key="month.name">
          <caption>
            {{
              month.name
            }}
          </caption>
          <thead>
            <tr>
              <th v-for="day in WEEKDAYS" :key="day" scope="col">
                <abbr :title="day">{{ day.slice(0, 2) }}</abbr>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(week, w) in month.weeks" :key="w">
              <td v-for="(day, d) in week" :key="d">
                <button
                  v-if="day"
                  :class="[day.sort, { today: day.day === view.today }]"
                  :title="day.name"
                  :aria-label="`${day.day}, ${day.name}`"
                  :aria-pressed="day.sort === 'holiday'"
                  @click="toggle(day.day)"
                >
                  {{ day.number }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="mid keys">
        <span class="worked">1</span> worked on <span class="rest">1</span> not a working weekday
        <span class="holiday">1</span> holiday <span class="closure-day">1</span> closure
      </p>
    </section>
    <UsersAndChanges :users="view.users" :changes="view.changes" />
  </div>
</template>

<style scoped>
.page {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr) 240px;
}
.note {
  padding: 8px 20px;
}
.left {
  background: var(--sand);
  border-right: 1px solid var(--line);
  padding: 14px 16px;
  overflow: auto;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
}
fieldset {
  border: 0;
  margin: 12px 0;
  padding: 0;
}
legend {
  font-weight: 700;
  padding: 0 0 4px;
}
.day {
  display: inline-block;
  width: 50%;
}
.off .mono {
  white-space: nowrap;
}
.off .in {
  min-width: 0;
}
.off {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 6px;
  align-items: center;
  padding: 2px 0;
}
.closure {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 4px;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
.closure input[placeholder] {
  grid-column: 1 / 3;
}
.closure input[type='date'] {
  min-width: 0;
}
h2 {
  margin-top: 14px;
}
.held {
  color: var(--held);
}
.year {
  padding: 12px 16px;
  overflow: auto;
}
.nav {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
}
.months {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 10px 16px;
}
caption {
  text-align: left;
  font-weight: 650;
}
.months th {
  font-weight: 400;
  font-size: 11px;
  color: var(--ink-2);
}
abbr {
  text-decoration: none;
}
.months table {
  border-collapse: collapse;
  align-self: start;
}
.months td {
  padding: 0;
}
.months button {
  all: unset;
  box-sizing: border-box;
  width: 100%;
  min-width: 20px;
  line-height: 20px;
  text-align: center;
  font: 12px/20px var(--mono);
  cursor: pointer;
}
.months button:focus-visible {
  outline: 2px solid var(--clay);
}
.months button.today {
  outline: 1px solid var(--ink);
}
.months button.rest,
.keys .rest {
  color: var(--ink-3);
  background: var(--sand);
}
.months button.holiday,
.keys .holiday {
  background: var(--clay);
  color: var(--panel);
}
.months button.closure-day,
.keys .closure-day {
  background: var(--held-2);
  color: var(--held);
  text-decoration: line-through;
}
.keys span {
  display: inline-block;
  min-width: 20px;
  text-align: center;
  margin-left: 12px;
  font: 12px/20px var(--mono);
}
</style>
