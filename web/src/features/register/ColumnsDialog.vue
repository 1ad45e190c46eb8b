<script setup lang="ts">
import { ref } from 'vue'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { COLUMNS, USUAL } from './columns'

/** Chooses the columns of the register. */
const props = defineProps<{ columns: string[] }>()
const emit = defineEmits<{ close: []; chosen: [columns: string[]] }>()
const chosen = ref([...props.columns])
</script>

<template>
  <OverDialog title="Columns" @close="emit('close')">
    <form id="columns" class="columns" @submit.prevent="emit('chosen', chosen)">
      <label v-for="(column, i) in COLUMNS" :key="column.key"
        ><input v-model="chosen" type="checkbox" :value="column.key" :autofocus="i === 0" />
        {{ column.name }}</label
      >
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn" @click="chosen = [...USUAL]">As usual</button>
      <button class="btn main" type="submit" form="columns" :disabled="!chosen.length">Show</button>
    </template>
  </OverDialog>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px 16px;
}
</style>
