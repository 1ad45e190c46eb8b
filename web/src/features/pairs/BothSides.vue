<script setup lang="ts">
import { computed, watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, momentText } from '@/shared/format/time'
import ResourceState from '@/shared/ui/ResourceState.vue'
import { readSides, type Possible } from './api'

/** Both tasks as they are now, field by field. */
const props = defineProps<{ possible: Possible }>()
const emit = defineEmits<{ answer: [same: boolean] }>()
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(() => readSides(props.possible.id))
watch(
  () => props.possible.id,
  () => {
    data.value = null
    void load()
  },
  { immediate: true },
)
/** What differs first, as that is what a person decides by. */
const fields = computed(() =>
  [...(data.value?.fields ?? [])].sort((one, other) => Number(one.same) - Number(other.same)),
)
const sides = computed(() =>
  data.value
    ? [
        { words: props.possible.waits ? 'Waits to be made' : 'Made last', ...data.value.ours },
        { words: 'There before', ...data.value.other },
      ]
    : [],
)
</script>

<template>
  <section aria-labelledby="sides">
    <div class="head">
      <h2 id="sides">Is this one thing twice?</h2>
      <span class="gap"></span>
      <button class="btn" type="button" @click="emit('answer', false)">
        Different <kbd>D</kbd>
      </button>
      <button class="btn main" type="button" @click="emit('answer', true)">
        The same <kbd>S</kbd>
      </button>
    </div>
    <p class="mid">
      <template v-for="reason in possible.reasons" :key="reason">{{ reason }}. </template>
      The last came {{ dayAndTime(possible.foundAt, now, zone) }} by
      <RouterLink v-if="possible.trace" :to="{ name: 'trace', params: { id: possible.trace } }"
        >{{ possible.bridgeName }}
      </RouterLink>
      <template v-else>{{ possible.bridgeName }}</template>.
    </p>
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <template v-if="data">
      <p v-if="data.problem" class="note bad" role="status">{{ data.problem }}</p>
      <table class="rows tall">
        <thead>
          <tr>
            <th scope="col">Field</th>
            <th v-for="side in sides" :key="side.words" scope="col">
              {{ side.words }}<template v-if="side.record">: </template>
              <a v-if="side.page" :href="side.page" target="_blank" rel="noopener">{{
                side.record
              }}</a>
              <template v-else>{{ side.record }}</template>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="field in fields" :key="field.name" :class="{ same: field.same }">
            <th scope="row">{{ field.name }} <small v-if="!field.same">differs</small></th>
            <td>{{ momentText(field.ours, zone) || '–' }}</td>
            <td>{{ momentText(field.other, zone) || '–' }}</td>
          </tr>
        </tbody>
      </table>
      <p class="dim hint">
        <template v-if="possible.waits"
          >The bridge waits for you. If they are the same, nothing is made, and the record goes on
          with the other, to which nothing is written until the record changes. If they are
          different, it is made now.</template
        >
        <template v-else
          >If they are the same, the one made last is taken back, unless somebody changed it since;
          its record goes on with the other, to which nothing is written until the record changes.
          If they are different, both stay, and it is not asked again.</template
        >
      </p>
    </template>
  </section>
</template>

<style scoped>
section {
  padding: 10px 20px;
  min-width: 0;
  overflow: auto;
}
.head {
  display: flex;
  gap: 10px;
  align-items: center;
}
.head h2 {
  margin: 0;
}
.gap {
  flex: 1;
}
.main kbd {
  background: transparent;
  color: inherit;
  border-color: currentColor;
}
table.rows th:first-child {
  width: 110px;
}
tr.same td,
tr.same th {
  color: var(--ink-2);
  font-weight: 400;
}
th small {
  display: block;
  font-weight: 400;
  color: var(--clay);
}
.mid {
  margin: 6px 0 10px;
}
.note {
  margin-inline: 0;
}
a {
  text-decoration: underline;
}
.hint {
  max-width: 80ch;
  margin: 12px 0 0;
}
</style>
