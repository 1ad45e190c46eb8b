<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import QueueList from './QueueList.vue'
import type { Possible } from './api'

/** Tasks that may be there twice. */
defineProps<{ items: Possible[]; chosen: number | null }>()
const emit = defineEmits<{ choose: [id: number]; answer: [same: boolean] }>()
const { now, zone } = useSession()
</script>

<template>
  <QueueList
    v-slot="{ one }"
    :items="items"
    :chosen="chosen"
    :keys="['s', 'd']"
    @choose="emit('choose', $event)"
    @answer="emit('answer', $event === 's')"
  >
    <span class="title">{{ one.title }}</span>
    <small class="title">{{ one.otherTitle }}</small>
    <small class="mid">
      {{ one.place }}, {{ dayAndTime(one.foundAt, now, zone) }}
      <b>{{ Math.floor(one.score * 100) }} % alike</b>
    </small>
  </QueueList>
</template>
