<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { counted } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import BothSides from './BothSides.vue'
import FoundPairs from './FoundPairs.vue'
import PossibleList from './PossibleList.vue'
import { answer, findPairs, readPossibles, type Pair } from './api'

const route = useRoute()
const router = useRouter()
const { data, error, loading, load } = useResource(() => readPossibles())
const { error: refused, during } = useActing()
void load()
onChange(
  () => true,
  () => void load(),
)

/** What was answered and is not kept yet: the next can be answered meanwhile. */
const answered = ref(new Set<number>())
const chosen = ref<number | null>(null)
const items = computed(() => (data.value?.items ?? []).filter((one) => !answered.value.has(one.id)))
const looked = computed(() => items.value.find((one) => one.id === chosen.value) ?? items.value[0])
watch(looked, (one) => (chosen.value = one?.id ?? null), { immediate: true })

let before: Promise<unknown> = Promise.resolve()
function say(same: boolean) {
  const one = looked.value
  if (!one) return
  const at = items.value.indexOf(one)
  const next = items.value[at + 1] ?? items.value[at - 1]
  answered.value.add(one.id)
  chosen.value = next?.id ?? null
  before = before.then(() => keep(one.id, same))
}

/** One after the other; one that is refused shows up again, with why. */
async function keep(id: number, same: boolean) {
  if (await during(() => answer(id, same))) {
    await load()
  } else {
    chosen.value = id
  }
  answered.value.delete(id)
}

const asked = computed(() => String(route.query.id ?? ''))
const text = ref(asked.value)
const found = ref<Pair[] | null>(null)
const lost = ref('')
watch(
  asked,
  async (id) => {
    text.value = id
    lost.value = ''
    found.value = null
    if (!id) return
    try {
      found.value = await findPairs(id)
    } catch (e) {
      lost.value = (e as Error).message
    }
  },
  { immediate: true },
)
const search = () =>
  router.push({ name: 'pairs', query: text.value.trim() ? { id: text.value.trim() } : {} })
</script>

<template>
  <div class="heading">
    <h1>Pairs</h1>
    <span class="mid">
      {{ counted((data?.open ?? 0) - answered.size, 'possible duplicate')
      }}<template v-if="data?.unlooked">, {{ data.unlooked }} still to be looked at</template>
    </span>
    <span class="gap"></span>
    <form role="search" @submit.prevent="search">
      <label for="pair" class="mid">Find a pair by the id of its record or task</label>
      <input id="pair" v-model="text" class="in" type="search" />
      <button class="btn" type="submit">Find</button>
    </form>
  </div>
  <p v-if="refused || lost" class="note bad" role="alert">{{ refused || lost }}</p>
  <template v-if="asked && found">
    <FoundPairs :id="asked" :pairs="found" />
    <p class="back"><RouterLink to="/pairs">Back to the possible duplicates</RouterLink></p>
  </template>
  <template v-else-if="!asked">
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <p v-if="data && !items.length" class="none mid">
      Nothing is there twice that we know of. A task that reads nearly like another open one shows
      up here, with both side by side.
    </p>
    <div v-else-if="data && looked" class="two">
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
</template>

<style scoped>
form {
  display: flex;
  gap: 8px;
  align-items: center;
}
.none,
.back {
  padding: 10px 20px;
}
.two {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(280px, 380px) minmax(0, 1fr);
  min-height: 0;
}
.two > :first-child {
  border-right: 1px solid var(--line-2);
  overflow: auto;
}
</style>
