<script setup lang="ts">
import { computed } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import { readRehearsals } from './api'

/** What a rehearsal of the draft came to, for who is about to put it to work. */
const props = defineProps<{ id: string }>()
const { now, zone } = useSession()
const { data, error, load } = useResource(() => readRehearsals(props.id))
void load()
const last = computed(() =>
  data.value?.rehearsals.find(
    (one) => one.version === null && one.sameAsDraft && one.state === 'ENDED',
  ),
)
</script>

<template>
  <p v-if="error" class="bad" role="alert">{{ error }}</p>
  <p v-else-if="last">
    Rehearsed {{ dayAndTime(last.begunAt, now, zone) }} over {{ counted(last.done, 'event') }} that
    came before:
    {{ last.differing ? last.differing.toLocaleString('en') : 'none' }}
    {{ last.differing === 1 ? 'comes' : 'come' }} to something else.
    <RouterLink :to="{ name: 'rehearsal', params: { id }, query: { rehearsal: last.id } }"
      >See which</RouterLink
    >
  </p>
  <p v-else-if="data" class="mid">
    The draft as it is was not rehearsed over what came before.
    <RouterLink :to="{ name: 'rehearsal', params: { id } }">Rehearse it</RouterLink>
  </p>
</template>

<style scoped>
a {
  text-decoration: underline;
}
</style>
