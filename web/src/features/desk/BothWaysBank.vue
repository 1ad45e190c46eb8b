<script setup lang="ts">
import { computed, ref } from 'vue'
import CeilingEditor from './CeilingEditor.vue'
import StatusPlay from './StatusPlay.vue'
import StatusTable from './StatusTable.vue'
import WholeDocument from './WholeDocument.vue'
import type { TrialView } from './api'
import type { Group, Tree } from './tree'

/**
 * A bridge that keeps two places alike: its document and its tables of statuses, with what is wrong
 * beside.
 */
const props = defineProps<{ id: string; doc: Group; text: string; trial: TrialView }>()
const emit = defineEmits<{ change: [document: Group] }>()
/** The field whose table is looked at; none while the document is. */
const field = ref('')
const grid = computed(() => props.trial.grids.find((one) => one.field === field.value))
const plain = (name: string) => name.replaceAll('-', ' ')

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
      <nav v-if="trial.grids.length" aria-label="Parts of the bridge">
        <button class="btn" :aria-pressed="!grid" @click="field = ''">The document</button>
        <button
          v-for="one in trial.grids"
          :key="one.field"
          class="btn"
          :aria-pressed="one === grid"
          @click="field = one.field"
        >
          Table of {{ plain(one.field) }}
        </button>
      </nav>
      <template v-if="grid">
        <h2 id="whole">{{ grid.left.field }} and {{ grid.right.field }}</h2>
        <p class="mid">
          A status that is set on one side sets what it stands for on the other, unless the two
          stand for each other already.
        </p>
        <StatusTable :grid="grid" :doc="doc" @change="emit('change', $event)" />
        <h2>Play it through</h2>
        <StatusPlay :id="id" :key="grid.field" :text="text" :grid="grid" />
      </template>
      <template v-else>
        <h2 id="whole">Both places, as a document</h2>
        <p class="mid">
          A field says what it is on the left and on the right, which way it goes, and what its
          values become on either side.
        </p>
        <WholeDocument :id="id" :text="text" @change="emit('change', $event)" />
      </template>
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
      <template v-if="grid">
        <h2>What may surprise</h2>
        <ul v-if="grid.findings.length">
          <li v-for="finding in grid.findings" :key="finding">{{ finding }}</li>
        </ul>
        <p v-else class="mid">Nothing: whatever is set on one side is seen on the other.</p>
      </template>
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
nav {
  display: flex;
  gap: 8px;
  margin-bottom: 14px;
}
nav [aria-pressed='true'] {
  border-color: var(--kelp);
  background: var(--kelp-2);
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
