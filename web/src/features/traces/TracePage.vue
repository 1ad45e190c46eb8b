<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime, fullTime } from '@/shared/format/time'
import { ordinal } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import VerdictText from '@/shared/ui/VerdictText.vue'
import { KnownTroubles } from '@/features/notes'
import { TakeBackButton } from '@/features/recall'
import ChainLine from './ChainLine.vue'
import FieldWays from './FieldWays.vue'
import GoneTask from './GoneTask.vue'
import StoryLines from './StoryLines.vue'
import TakeBack from './TakeBack.vue'
import { SendAgainDialog, type Rules } from '@/features/resend'
import { isGone, readTrace, sendAgain } from './api'

const props = defineProps<{ id: string }>()
const router = useRouter()
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(() => readTrace(props.id))
const refused = ref('')
const asking = ref(false)

const trace = computed(() => data.value?.trace)

watch(
  () => props.id,
  () => {
    data.value = null
    refused.value = ''
    void load()
  },
  { immediate: true },
)
onChange(
  (change) => change.trace === props.id,
  () => void load(),
)

async function again(_one: number, rules: Rules) {
  const fresh = await sendAgain(props.id, rules)
  await router.push({ name: 'trace', params: { id: fresh.trace } })
}
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <template v-if="data && trace">
    <div class="heading">
      <h1>{{ trace.title }}</h1>
      <VerdictText :verdict="trace.verdict" class="said">
        <template v-if="trace.tries > 1">, {{ ordinal(trace.tries) }} try</template>
      </VerdictText>
      <span class="mid nowrap" :title="`${fullTime(trace.receivedAt, zone)} ${zone}`">
        <RouterLink :to="{ name: trace.trial ? 'desk' : 'bridge', params: { id: trace.bridge } }">{{
          trace.bridgeName
        }}</RouterLink><template v-if="trace.version !== null"
          >, version {{ trace.version }}</template
        >, {{ dayAndTime(trace.receivedAt, now, zone) }}
      </span>
      <span class="gap"></span>
      <a
        v-if="data.targetPage && !isGone(data)"
        class="btn"
        :href="data.targetPage"
        target="_blank"
        rel="noopener"
        >Open task</a
      >
      <RouterLink v-if="data.newer" class="btn" :to="{ name: 'trace', params: { id: data.newer } }"
        >Newer try</RouterLink
      >
      <TakeBack
        v-else-if="trace.trial && trace.target && !trace.takenBackAt"
        :trace="trace.id"
        @refused="refused = $event"
        @done="load"
      />
      <GoneTask
        v-else-if="isGone(data)"
        :trace="trace.id"
        @refused="refused = $event"
        @done="load"
      />
      <template v-else-if="!trace.trial">
        <TakeBackButton
          v-if="trace.target && trace.verdict === 'CREATE' && !trace.takenBackAt"
          :wish="{ trace: trace.id }"
          label="Take back…"
          @refused="refused = $event"
        />
        <button
          class="btn main"
          type="button"
          :disabled="trace.verdict === 'WAITING'"
          @click="asking = true"
        >
          Send again…
        </button>
      </template>
    </div>
    <p v-if="refused" class="note bad" role="alert">{{ refused }}</p>
    <p v-if="trace.trial" class="note" role="status">
      One event sent for real from the desk, to try a draft; it counts nowhere.
      <template v-if="trace.takenBackAt">
        Its task was taken back {{ dayAndTime(trace.takenBackAt, now, zone) }}.
      </template>
    </p>
    <p v-else-if="trace.takenBackAt" class="note" role="status">
      What it made was taken back {{ dayAndTime(trace.takenBackAt, now, zone) }}. Nothing that comes
      later makes it again, unless a person says so.
    </p>
    <p v-if="trace.reason" class="note" :class="{ bad: trace.verdict === 'FAILED' }" role="status">
      {{ trace.reason }}
      <RouterLink
        v-if="data.incident"
        class="part"
        :to="{ name: 'incident', params: { id: data.incident } }"
        >See the incident</RouterLink
      >
    </p>
    <KnownTroubles v-if="trace.verdict === 'FAILED'" :bridge="trace.bridge" />
    <SendAgainDialog
      v-if="asking"
      :title="`Send again: ${trace.title}`"
      :of="{ chosen: [trace.id] }"
      :many="1"
      :send="again"
      @close="asking = false"
    />
    <ChainLine :chain="data.chain" />
    <div class="two">
      <StoryLines :view="data" />
      <FieldWays :view="data" />
    </div>
  </template>
</template>

<style scoped>
h1 {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 120px;
}
p.bad .part {
  color: inherit;
  text-decoration: underline;
}
.said {
  font-weight: 650;
}
.nowrap a {
  text-decoration: underline;
}
.nowrap {
  white-space: nowrap;
}
.two {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(380px, 468px);
  min-height: 0;
}
</style>
