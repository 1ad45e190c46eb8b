<script setup lang="ts">
import { computed, onMounted, useTemplateRef } from 'vue'
import { useResource } from '@/shared/composables/resource'
import ResourceState from '@/shared/ui/ResourceState.vue'
import { computeProof, type TrialView } from './api'

/** What going live would change, before it does. */
const props = defineProps<{
  id: string
  text: string
  trial: TrialView
  liveVersion: number | null
  error: string
}>()
const emit = defineEmits<{ go: []; close: [] }>()
const dialog = useTemplateRef<HTMLDialogElement>('dialog')
const {
  data,
  error: proofError,
  loading,
  load,
} = useResource(() => computeProof(props.id, props.text))
onMounted(() => {
  dialog.value?.showModal()
  void load()
})

const blocked = computed(() => props.trial.problems.length > 0)
const rows = computed(() => data.value?.rows ?? [])
const differing = computed(() =>
  rows.value.filter(
    (row) => row.liveVerdict != null || row.cells.some((cell) => cell.live != null),
  ),
)
const failing = computed(() => rows.value.filter((row) => row.verdict === 'failed').length)
const byField = computed(() =>
  (data.value?.columns ?? [])
    .map((column, i) => ({
      name: column.name,
      count: rows.value.filter((row) => row.cells[i]!.live != null).length,
    }))
    .filter((one) => one.count > 0),
)
const events = (count: number) => `${count} ${count === 1 ? 'event' : 'events'}`
</script>

<template>
  <dialog ref="dialog" aria-labelledby="go-live" @close="emit('close')">
    <h2 id="go-live">
      {{
        liveVersion === null ? 'Put the bridge to work' : `Put version ${liveVersion + 1} to work`
      }}
    </h2>
    <template v-if="blocked">
      <p>It cannot go live yet:</p>
      <ul>
        <li v-for="problem in trial.problems" :key="problem.path + problem.message" class="bad">
          {{ problem.message }}
        </li>
      </ul>
    </template>
    <template v-else>
      <ResourceState :loading="loading" :error="proofError" :has="data !== null" @retry="load" />
      <template v-if="data">
        <p v-if="rows.length === 0">
          No event of this kind was received yet, so nothing is compared.
        </p>
        <template v-else>
          <p>
            Of the last {{ events(rows.length) }}, {{ failing }} would fail<template
              v-if="liveVersion !== null"
              >, and {{ differing.length }} would come out other than with version
              {{ liveVersion }}</template
            >.
          </p>
          <ul v-if="byField.length">
            <li v-for="one in byField" :key="one.name">
              <b>{{ one.name }}</b> differs in {{ events(one.count) }}
            </li>
          </ul>
        </template>
        <p v-for="remark in trial.remarks" :key="remark" class="mid">! {{ remark }}</p>
      </template>
    </template>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <div class="foot">
      <button class="btn" @click="dialog?.close()">Not yet</button>
      <button class="btn main" :disabled="blocked || loading" @click="emit('go')">Go live</button>
    </div>
  </dialog>
</template>

<style scoped>
dialog {
  border: 1px solid var(--line-2);
  border-top: 3px solid var(--clay);
  background: var(--panel);
  color: var(--ink);
  padding: 18px 22px;
  width: 520px;
}
dialog::backdrop {
  background: rgb(29 43 42 / 35%);
}
ul {
  margin: 8px 0;
  padding-left: 18px;
}
.bad {
  color: var(--failed);
}
.foot {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
  margin-top: 16px;
}
</style>
