<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { useResource } from '@/shared/composables/resource'
import ResourceState from '@/shared/ui/ResourceState.vue'
import { addDraft, readPlaces } from './api'

/** A new bridge: from where, to where, and what it is called. */
const emit = defineEmits<{ close: [] }>()
const dialog = useTemplateRef<HTMLDialogElement>('dialog')
const router = useRouter()
const { data, error, loading, load } = useResource(readPlaces)
const from = ref(0)
const to = ref(0)
const name = ref('')
const typedId = ref('')
const refused = ref('')

onMounted(() => {
  dialog.value?.showModal()
  void load()
})

const id = computed(
  () =>
    typedId.value ||
    name.value
      .toLowerCase()
      .normalize('NFD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 64),
)
const source = computed(() => data.value?.sources[from.value])
const target = computed(() => data.value?.targets[to.value])

async function begin() {
  if (!source.value || !target.value) return
  try {
    await addDraft({
      id: id.value,
      name: name.value.trim(),
      sourceSystem: source.value.system,
      sourceCollection: source.value.collection,
      targetSystem: target.value.system,
      targetCollection: target.value.collection,
    })
    await router.push({ name: 'desk', params: { id: id.value } })
  } catch (e) {
    refused.value = (e as Error).message
  }
}
</script>

<template>
  <dialog ref="dialog" aria-labelledby="new-bridge" @close="emit('close')">
    <h2 id="new-bridge">A new bridge</h2>
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <form v-if="data" @submit.prevent="begin">
      <label
        ><span>When something happens in</span>
        <select v-model.number="from" class="in">
          <option v-for="(place, i) in data.sources" :key="i" :value="i">
            {{ place.systemName }}: {{ place.name }}
          </option>
        </select></label
      >
      <p v-if="source" class="mid">when a {{ source.record }} is {{ source.kinds.join(' or ') }}</p>
      <label
        ><span>make a task in</span>
        <select v-model.number="to" class="in">
          <option v-for="(place, i) in data.targets" :key="i" :value="i">
            {{ place.systemName }}: {{ place.name }}
          </option>
        </select></label
      >
      <p v-if="target?.required.length" class="mid">
        {{ target.systemName }} needs {{ target.required.join(' and ') }}; the rules for them are
        there first.
      </p>
      <label><span>It is called</span><input v-model="name" class="in" required /></label>
      <label
        ><span>Its short name</span>
        <input
          class="in mono"
          :value="id"
          @input="typedId = ($event.target as HTMLInputElement).value"
      /></label>
      <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
      <div class="foot">
        <button type="button" class="btn" @click="dialog?.close()">Cancel</button>
        <button class="btn main" :disabled="!id || !source || !target">Open its desk</button>
      </div>
    </form>
  </dialog>
</template>

<style scoped>
dialog {
  border: 1px solid var(--line-2);
  border-top: 3px solid var(--clay);
  background: var(--panel);
  color: var(--ink);
  padding: 18px 22px;
  width: 560px;
}
dialog::backdrop {
  background: rgb(29 43 42 / 35%);
}
form {
  display: grid;
  gap: 10px;
  margin-top: 10px;
}
label {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}
label span {
  text-align: right;
  color: var(--ink-2);
}
.bad {
  color: var(--failed);
}
.foot {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
}
</style>
