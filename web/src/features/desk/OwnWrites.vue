<script setup lang="ts">
import { computed } from 'vue'
import type { PlaceView } from './api'
import { isGroup, withKey, type Tree } from './tree'

/** Whether a bridge also hears of what was written to its source from here. */
const props = defineProps<{ from: Tree | undefined; place: PlaceView }>()
const emit = defineEmits<{ change: [from: Tree] }>()

const KEY = 'own-writes'
const heard = computed(() => isGroup(props.from) && props.from[KEY] === 'true')

const set = (heard: boolean) => emit('change', withKey(props.from, KEY, heard ? 'true' : undefined))
</script>

<template>
  <label class="saying">
    <input
      type="checkbox"
      :checked="heard"
      @change="set(($event.target as HTMLInputElement).checked)"
    />
    <span class="mid">Hear also of what other bridges write at {{ place.systemName }}</span>
  </label>
</template>
