<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ArrivingGroup } from './api'

const props = defineProps<{ groups: ArrivingGroup[]; used: Set<string>; picking: boolean }>()
const emit = defineEmits<{ pick: [address: string] }>()
const find = ref('')
const open = ref('')

const shown = computed(() => {
  const word = find.value.trim().toLowerCase()
  return props.groups
    .map((group) => ({
      ...group,
      fields: group.fields.filter(
        (field) =>
          !word ||
          [field.name, field.address, field.value, ...field.others].some((text) =>
            text.toLowerCase().includes(word),
          ),
      ),
    }))
    .filter((group) => group.fields.length > 0)
})

const share = (filled: number, of: number) =>
  filled === of ? 'always filled' : filled === 0 ? 'never filled' : `filled in ${filled} of ${of}`
</script>

<template>
  <section class="arriving" aria-labelledby="arriving">
    <h2 id="arriving">Arriving</h2>
    <input
      v-model="find"
      class="in"
      type="search"
      aria-label="Find a field by its name or a value"
      placeholder="Find a name or a value"
    />
    <template v-for="group in shown" :key="group.title">
      <h3>{{ group.title }}</h3>
      <ul>
        <li v-for="field in group.fields" :key="field.address">
          <button
            class="field"
            :class="{ used: used.has(field.address), picking }"
            :title="picking ? `Use ${field.name}` : field.address"
            @click="
              picking
                ? emit('pick', field.address)
                : (open = open === field.address ? '' : field.address)
            "
          >
            <span class="name"
              >{{ field.name }} <span class="dim">{{ field.type }}</span></span
            >
            <span class="value mono">{{ field.value || '–' }}</span>
            <span class="dim share">{{ share(field.filled, field.of) }}</span>
          </button>
          <div v-if="open === field.address" class="others">
            <span class="mono dim">{{ field.address }}</span>
            <span v-if="field.others.length" class="mid">Others hold:</span>
            <span v-for="other in field.others" :key="other" class="mono">{{ other }}</span>
          </div>
        </li>
      </ul>
    </template>
    <p v-if="groups.length && !shown.length" class="mid">Nothing here is called or holds that.</p>
  </section>
</template>

<style scoped>
.arriving {
  background: var(--sand);
  border-right: 1px solid var(--line);
  padding: 12px 14px;
  overflow: auto;
}
h3 {
  font-size: 12px;
  font-weight: 650;
  color: var(--ink-2);
  margin: 14px 0 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid var(--sand-2);
}
.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  width: 100%;
  text-align: left;
  border: 0;
  border-left: 2px solid transparent;
  background: none;
  color: var(--ink);
  padding: 4px 6px;
  cursor: pointer;
}
.field.used {
  border-left-color: var(--clay);
}
.field:hover,
.field.picking:hover {
  background: var(--sand-2);
}
.name {
  font-weight: 600;
}
.name .dim {
  font-weight: 400;
  font-size: 12px;
}
.value {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.share {
  font-size: 12px;
}
.others {
  display: grid;
  gap: 2px;
  padding: 0 8px 6px 10px;
  overflow-wrap: anywhere;
}
</style>
