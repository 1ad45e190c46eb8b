<script setup lang="ts">
import { onMounted, useTemplateRef } from 'vue'

/** A dialog that is open as long as it is there; Escape and its last act close it. */
defineProps<{ title: string; wide?: boolean }>()
const emit = defineEmits<{ close: [] }>()
const dialog = useTemplateRef<HTMLDialogElement>('dialog')
onMounted(() => dialog.value?.showModal())
defineExpose({ close: () => dialog.value?.close() })
</script>

<template>
  <dialog
    ref="dialog"
    class="over"
    :class="{ wide }"
    aria-labelledby="over-title"
    @close="emit('close')"
  >
    <h2 id="over-title">{{ title }}</h2>
    <slot></slot>
    <div class="acts"><slot name="acts" :close="() => dialog?.close()"></slot></div>
  </dialog>
</template>
