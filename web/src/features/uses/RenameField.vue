<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { counted } from '@/shared/format/words'
import { draftRenaming, seeRenaming, type Renamed, type Wanted } from './api'

/** What becomes of each rule if a field is called otherwise, as drafts of all of them at once. */
const props = defineProps<{ wanted: Wanted }>()
const to = ref('')
const seen = ref<Renamed[] | null>(null)
const kept = ref(false)
const { busy, error, during } = useActing()
const cannot = computed(() => (seen.value ?? []).filter((one) => one.problem))
watch(
  () => [props.wanted.field, to.value],
  () => {
    seen.value = null
    kept.value = false
  },
)
const wish = () => {
  const { system, collection, field } = props.wanted
  return { system, collection, field, to: to.value.trim() }
}
const see = () => during(async () => (seen.value = await seeRenaming(wish())))
const keep = () =>
  during(async () => {
    seen.value = await draftRenaming(wish())
    kept.value = true
  })
</script>

<template>
  <section aria-labelledby="renamed">
    <h2 id="renamed">If it is called otherwise</h2>
    <form class="row" @submit.prevent="see">
      <label
        ><span class="mid">its key from then on</span>
        <input v-model="to" class="in mono" required :placeholder="wanted.field"
      /></label>
      <button class="btn" type="submit" :disabled="busy || !to.trim()">See what changes</button>
    </form>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template v-if="seen">
      <p v-if="!seen.length" class="mid">No rule names it, so that nothing has to change.</p>
      <ul>
        <li v-for="one in seen" :key="one.bridge">
          <RouterLink :to="{ name: kept ? 'desk' : 'bridge', params: { id: one.bridge } }">{{
            one.name
          }}</RouterLink>: {{ one.places.join('; ') }}
          <span v-if="one.problem" class="bad">cannot be written so: {{ one.problem }}</span>
        </li>
      </ul>
      <p v-if="kept" class="note" role="status">
        {{ counted(seen.length, 'draft') }} {{ seen.length === 1 ? 'is' : 'are' }} kept. Describe
        the field under its new key beside the old one, let the drafts go live, then take the old
        one out.
      </p>
      <button
        v-else-if="seen.length"
        class="btn main"
        :disabled="busy || cannot.length > 0"
        @click="keep"
      >
        Keep {{ seen.length === 1 ? 'a draft of it' : `drafts of all ${seen.length}` }}
      </button>
    </template>
  </section>
</template>

<style scoped>
section {
  margin-top: 22px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: end;
}
.row label span {
  display: block;
}
ul {
  list-style: none;
  padding: 0;
  margin: 10px 0;
}
li {
  padding: 4px 0;
}
li a {
  font-weight: 650;
}
</style>
