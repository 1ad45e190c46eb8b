<script setup lang="ts">
import { watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import BothSides from './BothSides.vue'
import PossibleList from './PossibleList.vue'
import { answer, type Possible, type Possibles } from './api'
import { useQueue } from './useQueue'

/** Tasks that may be there twice, and what a person says of them. */
const props = defineProps<{ page: Possibles; load: () => Promise<unknown> }>()
const { error: refused, during } = useActing()
const emit = defineEmits<{ pending: [answers: number] }>()
const { items, looked, chosen, answered, say } = useQueue<Possible, boolean>(
  () => props.page.items,
  async (one, same) => {
    const kept = await during(() => answer(one.id, same))
    if (kept) await props.load()
    return kept
  },
)
watch(
  () => answered.value.size,
  (size) => emit('pending', size),
)
</script>

<template>
  <p v-if="refused" class="note bad" role="alert">{{ refused }}</p>
  <p v-if="!looked" class="none mid">
    Nothing is there twice that we know of. A task that reads nearly like another open one shows up
    here, with both side by side.
  </p>
  <div v-else class="two">
    <PossibleList
      :items="items"
      :chosen="chosen"
      aria-label="Possible duplicates"
      @choose="chosen = $event"
      @answer="say"
    />
    <BothSides :possible="looked" @answer="say" />
  </div>
</template>
