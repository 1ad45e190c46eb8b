<script setup lang="ts">
import { computed } from 'vue'
import type { ArrivingGroup } from './api'
import { isGroup, withKey, type Tree } from './tree'

/** Which record is changed where none is made: what holds its id. */
const props = defineProps<{ to: Tree | undefined; record: string; arriving: ArrivingGroup[] }>()
const emit = defineEmits<{ change: [to: Tree] }>()

const KEY = 'record'
const chosen = computed(() => String((isGroup(props.to) && props.to[KEY]) || ''))
/** An id is one value. */
const groups = computed(() =>
  props.arriving
    .map((group) => ({
      title: group.title,
      fields: group.fields.filter(
        (field) => !field.type.startsWith('list of') && field.type !== 'record',
      ),
    }))
    .filter((group) => group.fields.length),
)
const isKnown = computed(() =>
  groups.value.some((group) => group.fields.some((field) => field.address === chosen.value)),
)
</script>

<template>
  <p class="saying">
    <span class="mid">Changes the {{ record }} whose id is</span>
    <select
      class="in"
      :aria-label="`What holds the id of the ${record}`"
      :value="chosen"
      @change="emit('change', withKey(to, KEY, ($event.target as HTMLSelectElement).value))"
    >
      <option v-if="!isKnown" :value="chosen">{{ chosen || 'choose…' }}</option>
      <optgroup v-for="group in groups" :key="group.title" :label="group.title">
        <option v-for="field in group.fields" :key="field.address" :value="field.address">
          {{ field.name }}
        </option>
      </optgroup>
    </select>
  </p>
</template>
