<script setup lang="ts">
import OverDialog from '@/shared/ui/OverDialog.vue'

/** Asks whether a time is to be run by hand; what is made is said in the slot. */
defineEmits<{ run: []; close: [] }>()
</script>

<template>
  <OverDialog title="Run it now" @close="$emit('close')">
    <p><slot /> is made now. That time does not come again by itself.</p>
    <template #acts="{ close }">
      <button type="button" class="btn" @click="close()">Cancel</button>
      <button type="button" class="btn main" @click="$emit('run')">Run it now</button>
    </template>
  </OverDialog>
</template>
