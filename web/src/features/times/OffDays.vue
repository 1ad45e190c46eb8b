<script setup lang="ts">
/** What becomes of a time on a day that is no working day, and by which calendar. */
const props = defineProps<{ offDays: string; calendar: string; calendars: string[] }>()
const emit = defineEmits<{ change: [offDays: string, calendar: string | undefined] }>()

const WORDS = {
  keep: 'it stays',
  next: 'it goes to the next working day',
  before: 'it goes to the working day before',
  'leave-out': 'it is left out',
}
const value = (event: Event) => (event.target as HTMLSelectElement).value
const change = (offDays: string, calendar: string) =>
  emit(
    'change',
    offDays,
    offDays === 'keep' ? undefined : calendar || props.calendar || props.calendars[0],
  )
</script>

<template>
  <p class="saying choices">
    <label
      ><span class="mid">On a day that is no working day</span>
      <select
        class="in"
        aria-label="On a day that is no working day"
        :value="offDays"
        @change="change(value($event), '')"
      >
        <option
          v-for="(words, key) in WORDS"
          :key="key"
          :value="key"
          :disabled="key !== 'keep' && !calendars.length"
        >
          {{ words }}
        </option>
      </select></label
    >
    <label v-if="offDays !== 'keep'"
      ><span class="mid">by the calendar</span>
      <select
        class="in"
        aria-label="By which calendar"
        :value="calendar"
        @change="change(offDays, value($event))"
      >
        <option v-if="!calendars.includes(calendar)" :value="calendar">
          {{ calendar || 'choose one' }}
        </option>
        <option v-for="one in calendars" :key="one" :value="one">{{ one }}</option>
      </select></label
    >
  </p>
</template>
