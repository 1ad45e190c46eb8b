<script setup lang="ts">
import { onMounted, ref } from 'vue'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { makeAddress, readAddress, removeAddress } from './api'

/** The secret address of the calendar: made, made anew, taken away. */
const emit = defineEmits<{ close: [] }>()
const address = ref('')
const copied = ref(false)
const refused = ref('')

async function tried(act: () => Promise<{ address: string } | void>) {
  try {
    address.value = (await act())?.address ?? ''
    copied.value = false
    refused.value = ''
  } catch (e) {
    refused.value = (e as Error).message
  }
}
onMounted(() => tried(readAddress))

async function copy() {
  await navigator.clipboard.writeText(address.value)
  copied.value = true
}
</script>

<template>
  <OverDialog title="Subscribe to what is to come" @close="emit('close')">
    <p>
      A calendar program that is given this address shows what was made in the last week and what
      will be in the next ninety days, and reads it again each hour.
    </p>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <template v-if="address">
      <p>
        <input
          class="in mono address"
          readonly
          aria-label="The address of the calendar"
          :value="address"
        />
      </p>
      <p class="mid">
        Whoever has it can read it without signing in. If it came to the wrong people, make another:
        this one is good for nothing then.
      </p>
      <p v-if="copied" role="status">Copied.</p>
    </template>
    <p v-else class="mid">There is no address so far.</p>
    <template #acts="{ close }">
      <button v-if="address" type="button" class="btn" @click="tried(removeAddress)">
        Take it away
      </button>
      <button v-if="address" type="button" class="btn" @click="tried(makeAddress)">
        Make another
      </button>
      <button type="button" class="btn" @click="close()">Close</button>
      <button v-if="address" type="button" class="btn main" @click="copy">Copy it</button>
      <button v-else type="button" class="btn main" @click="tried(makeAddress)">
        Make an address
      </button>
    </template>
  </OverDialog>
</template>

<style scoped>
.address {
  width: 100%;
}
</style>
