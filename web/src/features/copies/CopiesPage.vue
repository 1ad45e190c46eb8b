<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import ResourceState from '@/shared/ui/ResourceState.vue'
import CopyRow from './CopyRow.vue'
import { follow, readCopies, standAlone, type Copy } from './api'

/** The copies of a bridge, what each would take over of it, and letting some or all follow. */
const props = defineProps<{ id: string }>()
/** Of more copies it is seen first how each stands. */
const MOST_OPEN = 3

const chosen = ref<string[]>([])
const take = ref<Record<string, string[]>>({})
const problems = ref<Record<string, string>>({})
const told = ref('')
const { data, error, loading, load } = useResource(() => readCopies(props.id))
const { busy, error: refused, during } = useActing()
watch(
  () => props.id,
  () => {
    chosen.value = []
    take.value = {}
    problems.value = {}
    told.value = ''
    void load()
  },
  { immediate: true },
)
onChange(
  () => true,
  () => void load(),
)

const can = (copy: Copy) => !copy.hindrance && (copy.follows || !!take.value[copy.id]?.length)
const able = computed(() => data.value?.copies.filter(can) ?? [])
const going = computed(() => able.value.filter((copy) => chosen.value.includes(copy.id)))
const all = computed({
  get: () => able.value.length > 0 && going.value.length === able.value.length,
  set: (yes) => (chosen.value = yes ? able.value.map((copy) => copy.id) : []),
})
function choose(copy: Copy, yes: boolean) {
  chosen.value = chosen.value.filter((id) => id !== copy.id).concat(yes ? [copy.id] : [])
}

async function go() {
  await during(async () => {
    const wish = going.value.map((copy) => ({
      copy: copy.id,
      seen: copy.seen,
      take: take.value[copy.id] ?? [],
    }))
    const came = await follow(props.id, wish)
    problems.value = Object.fromEntries(came.map((one) => [one.copy, one.problem]))
    const well = came.filter((one) => !one.problem)
    told.value =
      well.length === 1 ? '1 copy follows it now.' : `${well.length} copies follow it now.`
    well.forEach((one) => delete take.value[one.copy])
    chosen.value = []
  })
  await load()
}
async function alone(copy: Copy) {
  await during(() => standAlone(copy.id))
  await load()
}
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <div v-if="data" class="page">
    <div class="heading">
      <h1>Copies</h1>
      <RouterLink class="mid of" :to="{ name: 'bridge', params: { id } }"
        >of {{ data.name }}, version {{ data.version }}</RouterLink
      >
    </div>
    <p v-if="data.original" class="mid">
      It is itself a copy of
      <RouterLink :to="{ name: 'copies', params: { id: data.original } }">{{
        data.originalName
      }}</RouterLink>.
    </p>
    <p v-if="!data.copies.length" class="mid">
      No copy of it is at work. A new bridge can begin as a copy of it; what is changed here later
      is then offered to that one.
    </p>
    <template v-else>
      <p class="mid">
        What was changed here since each copy followed last is offered to it. What a copy has of its
        own stays.
      </p>
      <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
      <div class="acts">
        <label><input v-model="all" type="checkbox" :disabled="!able.length" /> all that can</label>
        <button class="btn main" :disabled="busy || !going.length" @click="go">
          {{ going.length > 1 ? `Let ${going.length} copies follow` : 'Let it follow' }}
        </button>
        <span role="status">{{ told }}</span>
      </div>
      <ul>
        <CopyRow
          v-for="copy in data.copies"
          :key="copy.id"
          :original="id"
          :copy="copy"
          :problem="problems[copy.id] ?? ''"
          :open="data.copies.length <= MOST_OPEN"
          :chosen="chosen.includes(copy.id)"
          :take="take[copy.id] ?? []"
          @update:chosen="choose(copy, $event)"
          @update:take="take[copy.id] = $event"
          @alone="alone(copy)"
        />
      </ul>
    </template>
  </div>
</template>

<style scoped>
.page {
  padding: 0 20px 20px;
}
.page .heading {
  margin: 0 -20px 10px;
}
.acts {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 10px 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--line);
}
</style>
