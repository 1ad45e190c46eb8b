<script setup lang="ts">
import { useTemplateRef, watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import QueueList from './QueueList.vue'
import WhatIsRight from './WhatIsRight.vue'
import { settle, type Disagreement, type Disagreeing, type Settling } from './api'
import { useQueue } from './useQueue'

/** Fields on which both sides disagree, and what a person says of them. */
const props = defineProps<{ page: Disagreeing; load: () => Promise<unknown> }>()
const { now, zone } = useSession()
const { error: refused, during } = useActing()
const emit = defineEmits<{ pending: [answers: number] }>()
const { items, looked, chosen, answered, say } = useQueue<Disagreement, Settling>(
  () => props.page.items,
  async (one, answer) => {
    const kept = await during(() => settle(one.id, answer))
    if (kept) await props.load()
    return kept
  },
)
watch(
  () => answered.value.size,
  (size) => emit('pending', size),
)
const view = useTemplateRef<InstanceType<typeof WhatIsRight>>('view')
</script>

<template>
  <p v-if="refused" class="note bad" role="alert">{{ refused }}</p>
  <p v-if="!looked" class="none mid">
    Both sides agree wherever two places are kept alike. A field that was changed on both to what
    cannot be brought together shows up here.
  </p>
  <div v-else class="two">
    <QueueList
      v-slot="{ one }"
      :items="items"
      :chosen="chosen"
      :keys="['l', 'r', 'b', 't']"
      aria-label="Fields on which both sides disagree"
      @choose="chosen = $event"
      @answer="view?.press($event)"
    >
      <span class="title">{{ one.title }}</span>
      <small class="mid">
        {{ one.bridgeName }}, {{ dayAndTime(one.since, now, zone) }} <b>{{ one.field }}</b>
      </small>
    </QueueList>
    <WhatIsRight ref="view" :key="looked.id" :of="looked" @answer="say" />
  </div>
</template>
