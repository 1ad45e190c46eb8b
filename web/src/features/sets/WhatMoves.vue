<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { capital, counted } from '@/shared/format/words'
import { readMoved, readSets, type MovedTask, type MovedView } from './api'

/** What would become of the tasks of a set if its day were another, before it is. */
const props = defineProps<{ id: string; target: string }>()
const { data, error, load } = useResource(() => readSets(props.id))
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)

const record = ref('')
const day = ref('')
const gone = ref(false)
const moved = ref<MovedView | null>(null)
const refused = ref('')
let newest = 0

watch([record, day, gone], async () => {
  const mine = ++newest
  moved.value = null
  refused.value = ''
  if (!record.value || !(day.value || gone.value)) return
  try {
    const answer = await readMoved(props.id, record.value, gone.value ? '' : day.value)
    // An older answer never replaces a newer one.
    if (mine === newest) moved.value = answer
  } catch (e) {
    if (mine === newest) refused.value = (e as Error).message
  }
})

const writes = (task: MovedTask) => task.removed || task.fields.length > 0
const changing = computed(() => moved.value?.tasks.filter(writes).length ?? 0)
const left = computed(() => (moved.value?.tasks.length ?? 0) - changing.value)
</script>

<template>
  <div class="moves" role="region" aria-labelledby="moves">
    <h2 id="moves">What would move</h2>
    <p v-if="error" class="bad" role="alert">Its sets could not be read: {{ error }}</p>
    <p v-else-if="data && !data.sets.length" class="mid">Nothing was heard of so far.</p>
    <p v-else-if="data" class="saying choices">
      <label
        ><span class="mid">If the day of</span>
        <select v-model="record" class="in" aria-label="The set of">
          <option value="">choose one</option>
          <option v-for="one in data.sets" :key="one.record" :value="one.record">
            {{ one.name }}
          </option>
        </select></label
      >
      <label
        ><span class="mid">were</span>
        <input v-model="day" class="in" type="date" aria-label="The day" :disabled="gone"
      /></label>
      <label v-if="data.noAnchor"
        ><input v-model="gone" type="checkbox" /> or were taken away</label
      >
    </p>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <div v-if="moved" role="status">
      <p v-if="moved.problem" class="mid">{{ moved.problem }}</p>
      <template v-if="moved.tasks.length">
        <p class="mid">
          {{ counted(changing, 'task') }} at {{ target }} would change<template v-if="left"
            >, {{ left }} would stay</template
          >.
        </p>
        <table>
          <tbody>
            <tr v-for="task in moved.tasks" :key="task.member" :class="{ stays: !writes(task) }">
              <th scope="row">{{ task.title || task.member }}</th>
              <td>
                <span v-for="field in task.fields" :key="field.name" class="field"
                  >{{ field.name }}
                  <template v-if="field.before"
                    ><span class="mid">{{ field.before }}</span> →
                  </template>
                  <b>{{ field.after || 'nothing' }}</b></span
                >
                <span v-if="task.removed" class="field"><b>taken away</b></span>
                <span v-if="!writes(task)" class="mid">{{
                  task.because ? capital(task.because) : 'It is so already'
                }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
    </div>
  </div>
</template>

<style scoped>
.moves {
  margin-bottom: 16px;
}
table {
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
}
th {
  text-align: left;
  font-weight: 600;
  padding: 3px 16px 3px 0;
  vertical-align: top;
}
td {
  padding: 3px 0;
  vertical-align: top;
}
.stays th {
  font-weight: 400;
  color: var(--ink-2);
}
.field {
  display: block;
}
</style>
