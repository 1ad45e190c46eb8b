<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import { useResource } from '@/shared/composables/resource'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { practiseRunaway, readRunaway } from './api'

/** Lets bridges that feed each other go, where some were set up to practise on. */
const router = useRouter()
const { data: bridges, load } = useResource(readRunaway)
const { busy, error, during } = useActing()
const asking = ref(false)
onMounted(() => void load())

async function begin() {
  if (await during(practiseRunaway)) await router.push('/watch')
}
</script>

<template>
  <button v-if="bridges?.length" class="btn" @click="asking = true">Practise a runaway…</button>
  <OverDialog v-if="asking && bridges" title="Practise a runaway" @close="asking = false">
    <p>
      Bridges that feed each other are let go, and one task is made for them to run with:
      <b>{{ bridges.map((one) => one.name).join(' and ') }}</b>.
    </p>
    <p class="mid">
      Within a minute one of them comes to its ceiling and holds itself. Watch leads with the
      incident; from there, take back what they made. Nothing else is touched.
    </p>
    <p v-if="error" class="bad" role="alert">{{ error }}</p>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" :disabled="busy" autofocus @click="begin">Let them run</button>
    </template>
  </OverDialog>
</template>

<style scoped>
p + p {
  margin-top: 8px;
}
</style>
