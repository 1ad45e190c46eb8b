<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSession } from '@/shared/composables/session'
import { momentText } from '@/shared/format/time'
import type { ArrivingGroup } from './api'

/** What arrives: every field with its type, its value, how often it is filled, and where it goes. */
const props = defineProps<{
  groups: ArrivingGroup[]
  goesTo: Record<string, { key: string; name: string }[]>
  samples: number
  picking: boolean
}>()
const emit = defineEmits<{ pick: [address: string]; show: [field: string] }>()
const { zone } = useSession()
/** Moments as people read them; what really came is shown with the rest of the field. */
const read = (text: string) => momentText(text, zone.value)
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
          [field.name, field.address, field.value, ...field.items, ...field.others].some((text) =>
            text.toLowerCase().includes(word),
          ),
      ),
    }))
    .filter((group) => group.fields.length > 0)
})

const share = (filled: number, of: number) =>
  of === 0
    ? ''
    : filled === of
      ? 'always filled'
      : filled === 0
        ? 'never filled'
        : `filled in ${filled} of ${of}`

const apart = (differs: number) =>
  differs === 0
    ? 'holds the same in all of these events'
    : `holds something else in ${differs} of ${props.samples}`
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
    <p v-if="picking" class="picking" role="status">Choose the field that the rule takes.</p>
    <template v-for="group in shown" :key="group.title">
      <h3>{{ group.title }}</h3>
      <ul>
        <li v-for="field in group.fields" :key="field.address">
          <button
            class="field"
            :class="{ used: goesTo[field.address]?.length, picking }"
            :title="picking ? `Use ${field.name}` : field.address"
            :aria-expanded="picking ? undefined : open === field.address"
            @click="
              picking
                ? emit('pick', field.address)
                : (open = open === field.address ? '' : field.address)
            "
          >
            <span class="name"
              >{{ field.name }} <span class="dim">{{ field.type }}</span></span
            >
            <span class="value mono">{{
              field.items.length ? `${field.items.length} items` : read(field.value) || '–'
            }}</span>
            <span class="dim share"
              >{{ share(field.filled, field.of)
              }}<template v-if="field.alike.length">, easily taken for another</template></span
            >
          </button>
          <div v-if="open === field.address" class="more">
            <span class="mono dim">{{ field.address }}</span>
            <span v-if="read(field.value) !== field.value" class="mid"
              >Came as <span class="mono">{{ field.value }}</span></span
            >
            <ol v-if="field.items.length" class="items">
              <li v-for="(item, i) in field.items" :key="i" class="mono">{{ item }}</li>
            </ol>
            <template v-if="field.others.length">
              <span class="mid">Others hold</span>
              <span v-for="other in field.others" :key="other" class="mono">{{ read(other) }}</span>
            </template>
            <span v-for="other in field.alike" :key="other.address" class="alike">
              Not <b>{{ other.name }}</b> (<span class="mono">{{ read(other.value) || '–' }}</span
              >), which {{ apart(other.differs) }}
            </span>
            <span v-if="goesTo[field.address]?.length" class="mid">
              Goes to
              <button
                v-for="to in goesTo[field.address]"
                :key="to.key"
                class="to"
                @click="emit('show', to.key)"
              >
                {{ to.name }}
              </button>
            </span>
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
.picking {
  margin-top: 6px;
  color: var(--clay);
  font-weight: 600;
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
ul > li {
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
.more {
  display: grid;
  gap: 3px;
  padding: 0 8px 6px 10px;
  overflow-wrap: anywhere;
}
.items {
  margin: 0;
  padding-left: 20px;
}
.alike {
  color: var(--held);
}
.to {
  border: 0;
  border-bottom: 1px dotted var(--ink-3);
  background: none;
  color: var(--ink);
  padding: 0;
  margin-left: 6px;
  cursor: pointer;
}
</style>
