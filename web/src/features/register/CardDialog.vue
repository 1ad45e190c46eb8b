<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { sayWhose, type Row } from './api'
import { JUDGED } from './columns'

/** Says whose a bridge is, and how sound people judge it. */
const props = defineProps<{ row: Row; owners: string[]; departments: string[] }>()
const emit = defineEmits<{ close: []; said: [] }>()
const owner = ref(props.row.owner)
const standIn = ref(props.row.standIn)
const department = ref(props.row.department)
const judged = ref<string>(props.row.judged ?? '')
const { busy, error, during } = useActing()

async function say() {
  const wish = {
    owner: owner.value,
    standIn: standIn.value,
    department: department.value,
    judged: (judged.value || null) as Row['judged'],
    basedOn: props.row.revision,
  }
  if (await during(() => sayWhose(props.row.id, wish))) emit('said')
}
</script>

<template>
  <OverDialog :title="`Whose “${row.name}” is`" @close="emit('close')">
    <form id="card" class="fields" @submit.prevent="say">
      <label class="asked"
        ><span>Owner, who is asked about it</span>
        <input v-model="owner" class="in" maxlength="200" list="known-owners" autofocus
      /></label>
      <label class="asked"
        ><span>Stand-in, while the owner is away</span>
        <input v-model="standIn" class="in" maxlength="200" list="known-owners"
      /></label>
      <label class="asked"
        ><span>Department</span>
        <input v-model="department" class="in" maxlength="200" list="known-departments"
      /></label>
      <label class="asked"
        ><span>How sound people judge it</span>
        <select v-model="judged" class="in">
          <option value="">nobody said</option>
          <option v-for="(words, key) in JUDGED" :key="key" :value="key">{{ words }}</option>
        </select></label
      >
      <p class="mid">Measured: {{ row.because }}.</p>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
      <datalist id="known-owners">
        <option v-for="one in owners" :key="one" :value="one"></option>
      </datalist>
      <datalist id="known-departments">
        <option v-for="one in departments" :key="one" :value="one"></option>
      </datalist>
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" type="submit" form="card" :disabled="busy">Keep</button>
    </template>
  </OverDialog>
</template>
