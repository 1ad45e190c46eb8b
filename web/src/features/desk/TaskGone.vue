<script setup lang="ts">
import { computed } from 'vue'
import type { PlaceView } from './api'
import { isGroup, withKey, type Tree } from './tree'

/** What is done about a task that others removed, when an event wants it changed. */
const props = defineProps<{ to: Tree | undefined; place: PlaceView }>()
const emit = defineEmits<{ change: [to: Tree] }>()

const KEY = 'if-gone'
const chosen = computed(() => String((isGroup(props.to) && props.to[KEY]) || 'ask'))

const set = (way: string) => emit('change', withKey(props.to, KEY, way === 'ask' ? undefined : way))
</script>

<template>
  <p class="saying">
    <span class="mid">If others removed the {{ place.record }} that is to change</span>
    <select
      class="in"
      aria-label="If others removed it"
      :value="chosen"
      @change="set(($event.target as HTMLSelectElement).value)"
    >
      <option value="ask">ask a person</option>
      <option value="make-anew">make it anew</option>
      <option value="leave">leave it removed</option>
    </select>
  </p>
</template>
