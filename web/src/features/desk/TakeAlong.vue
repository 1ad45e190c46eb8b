<script setup lang="ts">
import { computed, inject, ref, type Ref } from 'vue'
import { SORTS } from './parts'
import { useShelf, type Part } from './shelf'
import type { Tree } from './tree'

/** Takes a part of a bridge along, to be put into another one. */
const props = defineProps<{ kind: Part['kind']; name: string; tree: Tree }>()
const of = inject<Ref<string>>('bridge-name', ref(''))
const { part, take } = useShelf()

const taken = computed(
  () =>
    part.value?.kind === props.kind &&
    part.value.of === of.value &&
    JSON.stringify(part.value.tree) === JSON.stringify(props.tree),
)
const act = () =>
  take({
    kind: props.kind,
    name: props.name,
    of: of.value,
    tree: JSON.parse(JSON.stringify(props.tree)),
  })
</script>

<template>
  <button
    type="button"
    class="btn bare"
    :aria-label="`Take ${SORTS[kind]} ${name} along`"
    title="Take it along, to put it into another bridge"
    @click="act"
  >
    {{ taken ? 'Taken along' : 'Take along' }}
  </button>
</template>
