<script setup lang="ts">
import CeilingEditor from './CeilingEditor.vue'
import WholeDocument from './WholeDocument.vue'
import type { TrialView } from './api'
import type { Group, Tree } from './tree'

/** A bridge that keeps two places alike, as its document, with what is wrong with it beside. */
const props = defineProps<{ id: string; doc: Group; text: string; trial: TrialView }>()
const emit = defineEmits<{ change: [document: Group] }>()

function setCeiling(ceiling: Tree | undefined) {
  const doc = { ...props.doc }
  if (ceiling === undefined) delete doc.ceiling
  else doc.ceiling = ceiling
  emit('change', doc)
}
</script>

<template>
  <div class="bank">
    <section aria-labelledby="whole">
      <h2 id="whole">Both places, as a document</h2>
      <p class="mid">
        A field says what it is on the left and on the right, which way it goes, and what its values
        become on either side.
      </p>
      <WholeDocument :id="id" :text="text" @change="emit('change', $event)" />
    </section>
    <section class="beside" aria-labelledby="wrong">
      <h2 id="wrong">What is wrong</h2>
      <ul v-if="trial.problems.length">
        <li v-for="problem in trial.problems" :key="`${problem.path} ${problem.message}`">
          <span class="mono">{{ problem.path || 'the document' }}</span>
          {{ problem.message }}
        </li>
      </ul>
      <p v-else class="mid">Nothing. It can go live as it is.</p>
      <h2>Ceiling</h2>
      <CeilingEditor :ceiling="doc.ceiling" @change="setCeiling" />
    </section>
  </div>
</template>

<style scoped>
.bank {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 420px;
}
section {
  padding: 14px 20px;
  overflow: auto;
}
.beside {
  border-left: 1px solid var(--line);
}
h2:not(:first-child) {
  margin-top: 20px;
}
.bank :deep(textarea) {
  min-height: calc(100vh - 260px);
}
ul {
  margin: 0 0 18px;
  padding: 0;
  list-style: none;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
li .mono {
  display: block;
  color: var(--ink-2);
}
</style>
