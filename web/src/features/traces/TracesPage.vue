<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { VERDICT_WORDS } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import { SendAgainDialog, sendAgain, type Rules } from '@/features/resend'
import { counted } from '@/shared/format/words'
import TraceTable from './TraceTable.vue'
import { readBridges, type BridgeSummary } from './api'
import { useChosen } from './useChosen'
import { SPANS, useTraces } from './useTraces'

const { filter, set, traces, next, more, load, page, failed } = useTraces()
const { chosen, all, choose, chooseAll } = useChosen(traces)
const asking = ref(false)
const begun = ref('')
const send = (many: number, rules: Rules) => sendAgain({ chosen: [...chosen.value] }, many, rules)

function sent() {
  begun.value = `${counted(chosen.value.size, 'event')} sent again; Watch says how that goes.`
  chooseAll(false)
  void load()
}
const bridges = ref<BridgeSummary[]>([])
/** What people call the place that is asked for, as the traces themselves say. */
const placeName = computed(
  () =>
    traces.value.find((trace) => trace.place)?.place ||
    filter.value.place.slice(filter.value.place.indexOf(':') + 1),
)
const text = ref(filter.value.text)
const days = ref<[string, string] | null>(
  filter.value.from ? [filter.value.from, filter.value.until || filter.value.from] : null,
)

const verdicts = [
  ...Object.entries(VERDICT_WORDS).map(([key, words]) => ({
    value: key.toLowerCase().replace('_', '-'),
    words,
  })),
  { value: 'needs-you', words: 'failed, needs you' },
]

watch(
  () => filter.value.text,
  (asked) => (text.value = asked),
)

function pickDays(picked: [string, string] | null) {
  set({ from: picked?.[0] ?? '', until: picked?.[1] ?? '' })
}

onMounted(async () => {
  try {
    bridges.value = await readBridges()
  } catch {
    // The list below says what is wrong; without names the filter is merely shorter.
    bridges.value = []
  }
})
</script>

<template>
  <div class="traces">
    <h1 class="unseen">Traces</h1>
    <form class="filters" role="search" aria-label="Filter traces" @submit.prevent="set({ text })">
      <el-select
        :model-value="filter.bridge"
        aria-label="Bridge"
        class="wide"
        :empty-values="[null]"
        @update:model-value="(bridge: string) => set({ bridge, place: '' })"
      >
        <el-option value="" label="Every bridge" />
        <el-option v-for="b in bridges" :key="b.id" :value="b.id" :label="b.name" />
      </el-select>
      <span v-if="filter.place" class="place"
        >from {{ placeName
        }}<button
          class="btn bare"
          type="button"
          aria-label="Of every place"
          @click="set({ place: '' })"
        >
          ✕
        </button></span
      >
      <el-select
        :model-value="filter.verdict"
        aria-label="Verdict"
        class="wide"
        :empty-values="[null]"
        @update:model-value="(verdict: string) => set({ verdict })"
      >
        <el-option value="" label="Every verdict" />
        <el-option v-for="v in verdicts" :key="v.value" :value="v.value" :label="v.words" />
      </el-select>
      <el-select
        v-if="!filter.from"
        :model-value="filter.span"
        aria-label="Time"
        class="narrow"
        @update:model-value="(span: string) => set({ span })"
      >
        <el-option v-for="(s, key) in SPANS" :key="key" :value="key" :label="s.words" />
      </el-select>
      <el-date-picker
        v-model="days"
        type="daterange"
        value-format="YYYY-MM-DD"
        format="D MMM YYYY"
        start-placeholder="or from day"
        end-placeholder="to day"
        range-separator="–"
        aria-label="Days"
        class="days"
        @update:model-value="pickDays"
      />
      <el-input
        v-model="text"
        aria-label="Any value seen"
        placeholder="Any words: a name, a number, a mail address"
        clearable
        class="text"
        @clear="set({ text: '' })"
      />
      <button class="btn" type="submit">Find</button>
      <RouterLink class="btn bare" :to="{ name: 'where', query: text.trim() ? { text } : {} }"
        >Where is it?</RouterLink
      >
    </form>
    <ResourceState
      :loading="page.loading.value"
      :error="page.error.value || failed"
      :has="page.data.value !== null"
      @retry="load"
    />
    <div v-if="chosen.size || begun" class="chosen">
      <template v-if="chosen.size">
        <b role="status">{{ chosen.size }} chosen</b>
        <button class="btn main" type="button" @click="asking = true">Send again…</button>
        <button class="btn bare" type="button" @click="chooseAll(false)">Choose none</button>
      </template>
      <span v-else role="status">{{ begun }}</span>
    </div>
    <TraceTable
      v-if="page.data.value"
      :traces="traces"
      :chosen="chosen"
      :all="all"
      @choose="choose"
      @choose-all="chooseAll"
    />
    <SendAgainDialog
      v-if="asking"
      :title="`Send again: ${counted(chosen.size, 'event')} that you chose`"
      :of="{ chosen: [...chosen] }"
      :many="chosen.size"
      :send="send"
      @sent="sent"
      @close="asking = false"
    />
    <p v-if="next !== null" class="more">
      <button class="btn" type="button" @click="more">Show older</button>
    </p>
  </div>
</template>

<style scoped>
.traces {
  padding: 14px 20px;
}
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
}
.wide {
  width: 168px;
}
.narrow {
  width: 140px;
}
.filters :deep(.days) {
  width: 236px;
  flex: none;
}
.text {
  flex: 1;
  min-width: 220px;
}
.chosen {
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 40px;
  margin-bottom: 6px;
  background: var(--ground);
}
.more {
  padding: 14px 0;
}
</style>
