<script setup lang="ts">
import { computed, ref } from 'vue'
import { useActing } from '@/shared/composables/acting'
import { useSession } from '@/shared/composables/session'
import { typed } from '@/shared/format/time'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { changeTest, planTest, type TestPlan } from './api'

/** Plans a test, plans one anew, or plans again what was tested in one that ended. */
const props = defineProps<{ bridge: string; test: TestPlan | null; what?: string }>()
const emit = defineEmits<{ close: []; kept: [tests: TestPlan[]] }>()
const { now, zone } = useSession()

const USUAL = [30, 60, 90]
const OTHER = 'other'
const RULE = 'rule'
const what = ref(props.test?.what ?? props.what ?? '')
const how = ref<TestPlan['how']>(props.test?.how ?? 'BY_HAND')
const owner = ref(props.test?.owner ?? '')
const often = ref(
  props.test?.rule
    ? RULE
    : !props.test || USUAL.includes(props.test.everyDays!)
      ? String(props.test?.everyDays ?? 90)
      : OTHER,
)
const days = ref(props.test?.everyDays ?? 180)
const rule = ref(props.test?.rule ?? '')
const first = ref(props.test?.firstOn ?? typed(now.value, zone.value).slice(0, 10))
const everyDays = computed(() =>
  often.value === RULE ? null : often.value === OTHER ? days.value : Number(often.value),
)
const { busy, error, during } = useActing()

const keep = () =>
  during(async () => {
    const wish = {
      what: what.value,
      how: how.value,
      owner: owner.value,
      everyDays: everyDays.value,
      rule: often.value === RULE ? rule.value : null,
      firstOn: first.value,
      basedOn: props.test?.revision ?? 0,
    }
    emit(
      'kept',
      await (props.test
        ? changeTest(props.bridge, props.test.id, wish)
        : planTest(props.bridge, wish)),
    )
  })
</script>

<template>
  <OverDialog :title="test ? 'Plan it anew' : 'A test of this bridge'" @close="emit('close')">
    <form id="test" class="fields" @submit.prevent="keep">
      <label class="asked"
        ><span>What is tested</span>
        <input
          v-model="what"
          class="in"
          maxlength="400"
          required
          autofocus
          placeholder="A mail without a date is answered"
      /></label>
      <label class="asked"
        ><span>How</span>
        <select v-model="how" class="in">
          <option value="BY_HAND">by hand; a person says how it went</option>
          <option value="EXAMPLES">by itself; its pinned examples are decided</option>
        </select></label
      >
      <label class="asked"
        ><span>Who tests it, if not whoever owns the bridge</span>
        <input v-model="owner" class="in" maxlength="200"
      /></label>
      <label class="asked"
        ><span>How often</span>
        <select v-model="often" class="in">
          <option v-for="one in USUAL" :key="one" :value="String(one)">
            {{ one }} days after the last time
          </option>
          <option :value="OTHER">some other number of days after the last time</option>
          <option :value="RULE">by a rule</option>
        </select></label
      >
      <label v-if="often === OTHER" class="asked"
        ><span>Days after the last time</span>
        <input v-model.number="days" class="in" type="number" min="1" max="3660" required
      /></label>
      <label v-if="often === RULE" class="asked"
        ><span>The rule, in words or as RFC 5545 writes it</span>
        <input
          v-model="rule"
          class="in"
          maxlength="400"
          required
          placeholder="the first Monday of every third month"
      /></label>
      <label class="asked"
        ><span>For the first time on</span> <input v-model="first" class="in" type="date" required
      /></label>
      <p v-if="error" class="bad" role="alert">{{ error }}</p>
    </form>
    <template #acts="{ close }">
      <button class="btn" @click="close()">Not now</button>
      <button class="btn main" type="submit" form="test" :disabled="busy || !what.trim()">
        Keep
      </button>
    </template>
  </OverDialog>
</template>
