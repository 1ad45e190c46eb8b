<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import WhereRecord from './WhereRecord.vue'
import { findRecords, type FoundRecord, type Place } from './api'

/** Why there is no task for this: given anything that is known of it. */
const route = useRoute()
const router = useRouter()
const said = (key: string) => String(route.query[key] ?? '')
const typed = ref(said('text'))
const found = ref<FoundRecord[] | null>(null)
/** Whether more may be meant than are shown. */
const more = ref(false)
/** The places that were asked and did not answer. */
const silent = ref<string[]>([])
/** Places described alike that were not asked, since an id alone names none of them. */
const notAsked = ref<string[]>([])
/** Whether the sources were asked as well. */
const asked = ref(false)
const { busy, error, during } = useActing()

const place = computed<Place | null>(() =>
  said('system') && said('collection') && said('record')
    ? { system: said('system'), collection: said('collection'), record: said('record') }
    : null,
)

async function look(ask: boolean) {
  await during(async () => {
    const answer = await findRecords(said('text'), ask)
    const records = answer.records
    found.value = records
    more.value = answer.more
    silent.value = answer.silent
    notAsked.value = answer.notAsked
    asked.value = ask
    if (records.length === 1) choose(records[0]!)
  })
}
function choose({ system, collection, record }: FoundRecord) {
  void router.replace({ query: { text: said('text'), system, collection, record } })
}
function start() {
  found.value = null
  void router.replace({ query: typed.value.trim() ? { text: typed.value.trim() } : {} })
}
watch(
  () => said('text'),
  (text) => {
    typed.value = text
    if (text && !place.value) void look(false)
  },
  { immediate: true },
)
</script>

<template>
  <div class="page">
    <h1>Where is it?</h1>
    <form class="row" @submit.prevent="start">
      <input
        v-model="typed"
        class="in"
        aria-label="What is known of it"
        placeholder="an id, a title, a mail address, or a link from either side"
        required
      />
      <button class="btn main" type="submit" :disabled="busy || !typed.trim()">Look</button>
    </form>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <div v-if="found && !place" role="status">
      <template v-if="found.length">
        <p class="mid">Several may be meant:</p>
        <ul>
          <li v-for="one in found" :key="`${one.place} ${one.record}`">
            <button class="btn bare" @click="choose(one)">{{ one.record }}</button>
            <span>{{ one.title }}</span>
            <span class="mid">{{ one.place }}</span>
          </li>
        </ul>
        <p v-if="more" class="mid">These came last; there are more. Give its id or its link.</p>
      </template>
      <p v-if="silent.length" class="bad">
        Of these it is not known, since they did not answer: {{ silent.join('; ') }}.
      </p>
      <p v-if="notAsked.length" class="mid">
        Not asked, as there are many of them and an id alone names none: {{ notAsked.join('; ') }}.
        Give the link of the record instead.
      </p>
      <p v-if="!found.length">
        {{
          asked
            ? 'No source that was asked said that it has a record with that id.'
            : 'Nothing that was received says so.'
        }}
        <button v-if="!asked" class="btn" :disabled="busy" @click="look(true)">
          Ask the sources for it, as an id
        </button>
      </p>
    </div>
    <WhereRecord v-if="place" :place="place" />
  </div>
</template>

<style scoped>
.page {
  padding: 14px 20px;
}
.row {
  display: flex;
  gap: 8px;
  margin: 8px 0;
}
.in {
  width: 520px;
}
ul {
  display: grid;
  grid-template-columns: max-content minmax(0, max-content) 1fr;
  column-gap: 10px;
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  grid-column: 1 / -1;
  grid-template-columns: subgrid;
  align-items: baseline;
  justify-items: start;
}
</style>
