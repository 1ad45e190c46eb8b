<script setup lang="ts">
import { computed, ref, useId } from 'vue'

/** Adds one of many: typing filters, the arrows choose, Enter adds. */
export interface Choice {
  key: string
  words: string
  hint: string
}

const props = defineProps<{ label: string; choices: Choice[]; down?: boolean }>()
const emit = defineEmits<{ add: [key: string] }>()
const text = ref('')
const open = ref(false)
const at = ref(0)
const id = useId()

const fitting = computed(() => {
  const word = text.value.trim().toLowerCase()
  const rank = (choice: Choice) =>
    choice.words.startsWith(word) ? 0 : choice.words.includes(word) ? 1 : 2
  return props.choices
    .filter((one) => `${one.words} ${one.hint}`.toLowerCase().includes(word))
    .sort((a, b) => (word ? rank(a) - rank(b) : 0))
})

function move(by: number) {
  open.value = true
  at.value = Math.min(fitting.value.length - 1, Math.max(0, at.value + by))
  document.getElementById(`${id}-${at.value}`)?.scrollIntoView({ block: 'nearest' })
}

function add(choice: Choice | undefined) {
  if (!choice) return
  emit('add', choice.key)
  text.value = ''
  at.value = 0
  open.value = false
}

function typed() {
  open.value = true
  at.value = 0
}
</script>

<template>
  <div class="add-by">
    <input
      v-model="text"
      class="in"
      role="combobox"
      autocomplete="off"
      :aria-label="label"
      :aria-expanded="open"
      :aria-controls="`${id}-list`"
      :aria-activedescendant="open && fitting.length ? `${id}-${at}` : undefined"
      :placeholder="`${label}…`"
      @focus="open = true"
      @blur="open = false"
      @input="typed"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="add(fitting[at])"
      @keydown.esc.stop="open = false"
    />
    <ul v-show="open" :id="`${id}-list`" :class="{ down }" role="listbox" :aria-label="label">
      <li
        v-for="(choice, i) in fitting"
        :id="`${id}-${i}`"
        :key="choice.key"
        role="option"
        :aria-selected="i === at"
        :class="{ on: i === at }"
        @mousedown.prevent="add(choice)"
      >
        <b>{{ choice.words }}</b> <span class="mid">{{ choice.hint }}</span>
      </li>
      <li v-if="!fitting.length" role="option" aria-selected="false" class="mid">
        Nothing is called that.
      </li>
    </ul>
  </div>
</template>

<style scoped>
.add-by {
  position: relative;
}
ul {
  position: absolute;
  z-index: 5;
  left: 0;
  bottom: 100%;
  width: 460px;
  max-height: 260px;
  overflow: auto;
  margin: 0 0 2px;
  padding: 4px 0;
  list-style: none;
  background: var(--panel);
  border: 1px solid var(--line-2);
  border-top: 2px solid var(--clay);
}
ul.down {
  bottom: auto;
  top: 100%;
  margin: 2px 0 0;
}
li {
  padding: 4px 10px;
  cursor: pointer;
}
li.on {
  background: var(--kelp-2);
}
</style>
