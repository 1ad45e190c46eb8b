<script setup lang="ts">
import { ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { sayTested, type TestPlan } from './api'

/** Says how a test by hand went. */
const props = defineProps<{ bridge: string; test: TestPlan }>()
const emit = defineEmits<{ close: []; kept: [tests: TestPlan[]] }>()
const passed = ref('')
const words = ref('')
const { busy, error, during } = useActing()

const keep = () =>
  during(async () => {
    const said = words.value.trim() || 'As it should be.'
    emit('kept', await sayTested(props.bridge, props.test.id, passed.value === 'yes', said))
  })
</script>

<template>
  <OverDialog :title="`How it went: ${test.what}`" @close="emit('close')">
    <form id="result" class="fields" @submit.prevent="keep">
      <fieldset>
        <legend>Did it do what it should?</legend>
        <label><input v-model="passed" type="radio" value="yes" required autofocus /> yes</label>
        <label><input v-model="passed" type="radio" value="no" /> no</label>
      </fieldset>
      <label class="asked"
        ><span>{{ passed === 'no' ? 'What went wrong' : 'What was seen' }}</span>
        <textarea
          v-model="words"
          class="in"
          rows="4"
          maxlength="4000"
          :required="passed === 'no'"
        ></textarea>
      </label>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button
        class="btn main"
        type="submit"
        form="result"
        :disabled="busy || !passed || (passed === 'no' && !words.trim())"
      >
        Keep
      </button>
    </template>
  </OverDialog>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  gap: 16px;
}
legend {
  font-weight: 600;
  padding: 0 0 4px;
}
</style>
