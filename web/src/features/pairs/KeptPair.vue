<script setup lang="ts">
import { computed, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, momentText } from '@/shared/format/time'
import FollowOnce from './FollowOnce.vue'
import PairHistory from './PairHistory.vue'
import { lookAgain, part, takeUp, type KeptPair } from './api'

/** Two tasks that are kept alike, with what they agreed on last. */
const props = defineProps<{ pair: KeptPair }>()
const emit = defineEmits<{ changed: [] }>()
const { now, zone } = useSession()
const { busy, error, during } = useActing()
/** Whether a person said of one that it is left as it is, with no other one. */
const alone = computed(
  () => props.pair.parted !== '' && (!props.pair.left.record || !props.pair.right.record),
)
/** The trace that looks at both, once somebody asked for it. */
const trace = ref('')
const choosing = ref(false)
const looksBack = ref(false)

function began(id: string) {
  trace.value = id
  emit('changed')
}

const look = () => during(async () => began((await lookAgain(props.pair)).trace))
const goAcross = () => during(async () => began((await takeUp(props.pair)).trace))
async function partThem() {
  if (await during(() => part(props.pair))) emit('changed')
}
</script>

<template>
  <article>
    <div class="head">
      <h2>{{ pair.title }}</h2>
      <span class="gap"></span>
      <button class="btn" type="button" :aria-expanded="looksBack" @click="looksBack = !looksBack">
        What became of them
      </button>
      <button v-if="alone" class="btn" type="button" :disabled="busy" @click="goAcross">
        Let it go across
      </button>
      <template v-if="!pair.parted">
        <button class="btn" type="button" :disabled="busy" @click="look">Look at both now</button>
        <button class="btn" type="button" :disabled="busy" @click="choosing = true">
          One is right…
        </button>
        <button class="btn" type="button" :disabled="busy" @click="partThem">Part them</button>
      </template>
    </div>
    <p v-if="alone" class="mid">
      Left as it is, and not made on the other side by
      <RouterLink :to="{ name: 'bridge', params: { id: pair.bridge } }">{{
        pair.bridgeName
      }}</RouterLink>, since {{ dayAndTime(pair.madeAt, now, zone) }}.
    </p>
    <p v-else class="mid">
      Kept alike by
      <RouterLink :to="{ name: 'bridge', params: { id: pair.bridge } }">{{
        pair.bridgeName
      }}</RouterLink>
      since {{ dayAndTime(pair.madeAt, now, zone) }}; agreed last
      {{ dayAndTime(pair.changedAt, now, zone) }}.
      <b v-if="pair.parted">They are a pair no more, as {{ pair.parted }}.</b>
    </p>
    <p v-if="error" class="note bad" role="alert">{{ error }}</p>
    <p v-if="trace" role="status">
      {{ alone ? 'It is looked at.' : 'Both are looked at.' }}
      <RouterLink :to="{ name: 'trace', params: { id: trace } }">See what came of it</RouterLink>
    </p>
    <FollowOnce v-if="choosing" :pair="pair" @close="choosing = false" @began="began" />
    <table v-if="!alone" class="rows tall">
      <thead>
        <tr>
          <th scope="col">Agreed on</th>
          <th v-for="task in [pair.left, pair.right]" :key="task.place" scope="col">
            {{ task.place }}<template v-if="task.record">: </template>
            <a v-if="task.page" :href="task.page" target="_blank" rel="noopener">{{
              task.record
            }}</a>
            <template v-else>{{ task.record || ', not made yet' }}</template>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="field in pair.fields" :key="field.name">
          <th scope="row">{{ field.name }}</th>
          <td>{{ momentText(field.left, zone) || '–' }}</td>
          <td>{{ momentText(field.right, zone) || '–' }}</td>
        </tr>
      </tbody>
    </table>
    <PairHistory v-if="looksBack" :key="pair.changedAt" :pair="pair" />
  </article>
</template>

<style scoped>
article {
  padding: 10px 20px;
  border-bottom: 1px solid var(--line);
}
.head {
  display: flex;
  gap: 8px;
  align-items: center;
}
h2 {
  margin: 0;
  font-weight: 600;
}
p {
  margin: 4px 0 8px;
}
table.rows th:first-child {
  width: 120px;
}
tbody th::first-letter {
  text-transform: uppercase;
}
a {
  text-decoration: underline;
}
</style>
