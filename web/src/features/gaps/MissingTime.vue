<script setup lang="ts">
import { computed } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, spanText } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import { gapSeen, type Gap } from './api'

/** Time of which nothing was known, since the data was restored: what makes up for it. */
const props = defineProps<{ gap: Gap }>()
const emit = defineEmits<{ seen: [] }>()
const { now, zone } = useSession()
const { busy, error, during } = useActing()

const polled = computed(() => props.gap.places.filter((place) => place.way === 'POLLED'))
const awaited = computed(() => polled.value.filter((place) => !place.read))
const told = computed(() => props.gap.places.filter((place) => place.way === 'TOLD'))
const long = computed(() => spanText(Date.parse(props.gap.until) - Date.parse(props.gap.from)))

const names = (places: { name: string }[]) => places.map((place) => place.name).join('; ')

async function seen() {
  await during(() => gapSeen(props.gap.id))
  emit('seen')
}
</script>

<template>
  <section :aria-labelledby="`gap-${gap.id}`">
    <h2 :id="`gap-${gap.id}`">
      Restored from a backup <small>{{ long }} are missing here</small>
    </h2>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <p>
      The backup is of {{ dayAndTime(gap.from, now, zone) }}, and was put back
      {{ dayAndTime(gap.until, now, zone) }}. What was made meanwhile is looked for before anything
      is made, so that nothing is there twice; where a system cannot be searched, you are asked.
    </p>
    <dl>
      <template v-if="polled.length">
        <dt>Read again</dt>
        <dd v-if="awaited.length">
          {{ polled.length - awaited.length }} of {{ counted(polled.length, 'place') }}; still to be
          read: {{ names(awaited) }}
        </dd>
        <dd v-else>all {{ counted(polled.length, 'place') }} that are asked for changes</dd>
      </template>
      <template v-if="gap.checks.length">
        <dt>Pairs</dt>
        <dd>
          <template v-for="(check, i) in gap.checks" :key="check.bridge"
            ><template v-if="i">; </template
            ><RouterLink :to="{ name: 'full-check', params: { id: check.bridge } }">{{
              check.name
            }}</RouterLink>
            {{ check.begun ? 'is checked' : 'is checked once all is read' }}</template
          >
        </dd>
      </template>
      <template v-if="told.length">
        <dt>Not told again</dt>
        <dd>
          {{ names(told) }}
          <small
            >What came by webhook meanwhile is not known here. Have it sent once more, or look a
            record up under <RouterLink :to="{ name: 'where' }">Where is it?</RouterLink> and fetch
            it.</small
          >
        </dd>
      </template>
    </dl>
    <button class="btn" :disabled="busy" @click="seen">Done with this</button>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 18px;
}
p {
  max-width: 90ch;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 6px 16px;
  margin: 8px 0 10px;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
}
dd small {
  display: block;
}
</style>
