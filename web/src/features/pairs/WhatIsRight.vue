<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from 'vue'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, momentText } from '@/shared/format/time'
import type { Disagreement, Settling } from './api'

/** A field on both sides, with what they agreed on last between them. */
const props = defineProps<{ of: Disagreement }>()
const emit = defineEmits<{ answer: [answer: Settling] }>()
const { now, zone } = useSession()
const typing = ref(false)
const text = ref('')
const input = useTemplateRef<HTMLTextAreaElement>('input')

async function type() {
  if (!props.of.typed) return
  typing.value = true
  text.value = props.of.left.now
  await nextTick()
  input.value?.focus()
  input.value?.select()
}

/** L and R take a side, B both, T lets another value be typed. */
function press(key: string) {
  if (key === 'l') emit('answer', { take: 'LEFT', text: '' })
  else if (key === 'r') emit('answer', { take: 'RIGHT', text: '' })
  else if (key === 'b' && props.of.both) emit('answer', { take: 'BOTH', text: '' })
  else if (key === 't') void type()
}
defineExpose({ press })
const say = () => emit('answer', { take: 'TYPED', text: text.value })
</script>

<template>
  <section aria-labelledby="right">
    <h2 id="right">{{ of.field }}: what is right?</h2>
    <p class="mid">
      {{ of.because }}. Found {{ dayAndTime(of.since, now, zone) }} by
      <RouterLink v-if="of.trace" :to="{ name: 'trace', params: { id: of.trace } }">{{
        of.bridgeName
      }}</RouterLink>
      <template v-else>{{ of.bridgeName }}</template>. Both keep what they have until you say what
      is right; other fields go on.
    </p>
    <table class="rows tall">
      <thead>
        <tr>
          <td></td>
          <th v-for="side in [of.left, of.right]" :key="side.record" scope="col">
            {{ side.place }}:
            <a v-if="side.page" :href="side.page" target="_blank" rel="noopener">{{
              side.record
            }}</a>
            <template v-else>{{ side.record }}</template>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr class="before">
          <th scope="row">Agreed before</th>
          <td v-for="side in [of.left, of.right]" :key="side.record">
            {{ momentText(side.before, zone) || '–' }}
          </td>
        </tr>
        <tr>
          <th scope="row">Now</th>
          <td v-for="side in [of.left, of.right]" :key="side.record">
            {{ momentText(side.now, zone) || '–' }}
          </td>
        </tr>
        <tr class="take">
          <td></td>
          <td>
            <button class="btn" type="button" @click="press('l')">This one <kbd>L</kbd></button>
          </td>
          <td>
            <button class="btn" type="button" @click="press('r')">This one <kbd>R</kbd></button>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="others">
      <button v-if="of.both" class="btn" type="button" @click="press('b')">
        Both <kbd>B</kbd>
      </button>
      <button v-if="of.typed && !typing" class="btn" type="button" @click="press('t')">
        Something else… <kbd>T</kbd>
      </button>
    </p>
    <form v-if="typing" @submit.prevent="say">
      <label for="typed">What it is, as {{ of.left.system }} says it</label>
      <textarea
        id="typed"
        ref="input"
        v-model="text"
        class="in"
        rows="3"
        @keydown.ctrl.enter.prevent="say"
        @keydown.escape.prevent="typing = false"
      ></textarea>
      <button class="btn main" type="submit">Take this <kbd>Ctrl Enter</kbd></button>
      <button class="btn" type="button" @click="typing = false">Leave it</button>
    </form>
  </section>
</template>

<style scoped>
section {
  padding: 10px 20px;
  min-width: 0;
  overflow: auto;
}
table.rows thead td,
table.rows th:first-child {
  width: 110px;
}
tr.before td,
tr.before th {
  color: var(--ink-2);
  font-weight: 400;
}
tr.take td {
  border-bottom: 0;
}
.mid {
  margin: 6px 0 10px;
}
.others {
  display: flex;
  gap: 8px;
  margin: 8px 0;
  padding-left: 120px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  max-width: 90ch;
  padding-left: 120px;
}
form label {
  flex-basis: 100%;
}
form textarea {
  flex-basis: 100%;
}
.main kbd {
  background: transparent;
  color: inherit;
  border-color: currentColor;
}
a {
  text-decoration: underline;
}
</style>
