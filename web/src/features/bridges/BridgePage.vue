<script setup lang="ts">
import { computed, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { about, dayAndTime } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { CeilingLines } from '@/features/ceiling'
import { BridgeLoops } from '@/features/loops'
import { HoldControl, readWaiting, RetireControl } from '@/features/hold'
import { BridgeChores } from '@/features/chores'
import { BridgeCopies } from '@/features/copies'
import { BridgeNotes } from '@/features/notes'
import { WhatMoves } from '@/features/sets'
import { BridgeTests } from '@/features/tests'
import { BridgeTimes } from '@/features/times'
import BothWays from './BothWays.vue'
import BothWaysPlace from './BothWaysPlace.vue'
import FieldSentence from './FieldSentence.vue'
import { readBridge } from './api'

const props = defineProps<{ id: string }>()
const router = useRouter()
const { now, zone } = useSession()
const { data, error, loading, load } = useResource(() => readBridge(props.id))
const { data: waiting, load: count } = useResource(() => readWaiting(props.id))
const waitingWords = computed(() => {
  const events = waiting.value?.events ?? 0
  return events ? `${counted(events, 'event')} ${events === 1 ? 'waits' : 'wait'}, and` : ''
})
const byWhom = (by: string) =>
  by === 'engine' ? 'by itself' : by === 'setup' ? 'from the start,' : `by a ${by}`
watch(
  () => data.value?.bridge.heldSince,
  (since) => {
    if (since) void count()
  },
)
watch(
  () => props.id,
  () => void load(),
  { immediate: true },
)
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <template v-if="data">
    <div class="heading">
      <h1>{{ data.bridge.name }}</h1>
      <span class="pill" :class="{ held: data.bridge.heldSince }"
        >{{ data.bridge.heldSince ? 'held' : 'live' }}, version {{ data.bridge.version }}</span
      >
      <span class="mid">{{ data.bridge.purpose }}</span>
      <span class="gap"></span>
      <HoldControl :bridge="data.bridge" @changed="load" />
      <RetireControl
        v-if="data.bridge.heldSince"
        :bridge="data.bridge"
        @retired="router.push({ name: 'bridges' })"
      />
      <RouterLink class="btn" :to="{ name: 'desk', params: { id: data.bridge.id } }"
        >Open the desk</RouterLink
      >
      <RouterLink class="btn" :to="{ name: 'traces', query: { bridge: data.bridge.id } }"
        >Its traces</RouterLink
      >
      <RouterLink
        v-if="data.places"
        class="btn"
        :to="{ name: 'places', params: { id: data.bridge.id } }"
        >Its places</RouterLink
      >
      <RouterLink
        v-if="data.bothWays"
        class="btn"
        :to="{ name: 'full-check', params: { id: data.bridge.id } }"
        >Full check</RouterLink
      >
      <RouterLink v-else class="btn" :to="{ name: 'rehearsal', params: { id: data.bridge.id } }"
        >Rehearse…</RouterLink
      >
      <RouterLink class="btn" :to="{ name: 'new-recall', query: { bridge: data.bridge.id } }"
        >Take back…</RouterLink
      >
    </div>
    <p v-if="data.bridge.heldSince" class="note held" role="status">
      <VerdictMark kind="HELD" />
      Held {{ byWhom(data.bridge.heldBy) }} since
      {{ dayAndTime(data.bridge.heldSince, now, zone) }}: {{ data.bridge.heldBecause }}.
      {{ waitingWords || 'Nothing waits yet;' }} what arrives is kept and goes on its way, in order,
      when it is released.
    </p>
    <div class="shores">
      <section class="arriving" aria-labelledby="arriving">
        <h2 id="arriving">
          {{ data.bothWays ? 'Left' : data.times ? 'Begins by itself' : 'Arriving' }}
        </h2>
        <p v-if="data.times">{{ data.times }}</p>
        <template v-else>
          <p>
            <RouterLink v-if="data.places" :to="{ name: 'places', params: { id: data.bridge.id } }"
              ><b>{{ data.sourceCollection }}</b></RouterLink
            ><b v-else>{{ data.sourceCollection }}</b> of {{ data.bridge.source }}
          </p>
          <p class="mid">when one is {{ data.events.join(' or ') }}</p>
          <template v-if="data.chores.length">
            <h3>Comes round</h3>
            <ul>
              <li v-for="sentence in data.chores" :key="sentence">{{ sentence }}</li>
            </ul>
          </template>
        </template>
        <BothWaysPlace v-if="data.bothWays" :place="data.bothWays.left" :to="data.bridge.target" />
        <template v-for="lookup in data.lookups" :key="lookup.name">
          <h3>Looked up</h3>
          <p>{{ lookup.sentence }}</p>
          <p class="mid">{{ lookup.ifNone }}</p>
        </template>
        <template v-if="data.matchKey.length">
          <h3>The same thing</h3>
          <p>
            when <b>{{ data.matchKey.join(' and ') }}</b> is the same
          </p>
        </template>
      </section>
      <section class="rules" aria-labelledby="rules" tabindex="0">
        <template v-if="data.bothWays">
          <h2 id="rules">
            Kept alike <small>{{ data.bothWays.fields.length }} fields</small>
          </h2>
          <BothWays :both="data.bothWays" :left="data.bridge.source" :right="data.bridge.target" />
        </template>
        <template v-else>
          <BridgeChores
            v-if="data.chores.length"
            :id="data.bridge.id"
            :target="data.bridge.target"
            record="row"
          />
          <WhatMoves v-if="data.set" :id="data.bridge.id" :target="data.bridge.target" />
          <BridgeTimes v-if="data.times" :id="data.bridge.id" :target="data.bridge.target" />
          <h2 id="rules">Only when</h2>
          <ul v-if="data.conditions.length">
            <li v-for="condition in data.conditions" :key="condition">{{ condition }}</li>
          </ul>
          <p v-else class="mid">always</p>
          <h2>
            {{ data.tasks === 'one task for each event' ? 'Fields' : data.tasks }}
            <small>{{ counted(data.fields.length, 'rule') }}</small>
          </h2>
          <FieldSentence
            v-for="(field, place) in data.fields"
            :key="`${place} ${field.field}`"
            :field="field"
          />
        </template>
        <template v-for="effect in data.then" :key="effect.name">
          <h2 class="then">
            Then {{ effect.name.replaceAll('-', ' ') }} <small>{{ effect.what }}</small>
          </h2>
          <p v-if="effect.conditions.length" class="mid">
            only when {{ effect.conditions.join('; ') }}
          </p>
          <p v-if="effect.matchKey.length" class="mid">
            once for {{ effect.matchKey.join(' and ') }}
          </p>
          <FieldSentence v-for="field in effect.fields" :key="field.field" :field="field" />
        </template>
        <BridgeLoops :id="data.bridge.id" />
        <BridgeCopies :id="data.bridge.id" />
        <BridgeNotes :id="data.bridge.id" />
        <BridgeTests :id="data.bridge.id" />
        <template v-if="data.remarks.length">
          <h2>To look at</h2>
          <ul>
            <li v-for="remark in data.remarks" :key="remark">{{ remark }}</li>
          </ul>
        </template>
      </section>
      <section class="leaving" aria-labelledby="leaving">
        <h2 id="leaving">{{ data.bothWays ? 'Right' : 'Leaving' }}</h2>
        <p>
          <b>{{ data.targetCollection }}</b> of {{ data.bridge.target }}
        </p>
        <template v-if="data.bothWays">
          <p class="mid">when one is {{ data.bothWays.right.events.join(' or ') }}</p>
          <BothWaysPlace :place="data.bothWays.right" :to="data.bridge.source" />
        </template>
        <template v-if="data.bothWays">
          <h3>Full check</h3>
          <p v-if="data.bothWays.checkSeconds">
            every {{ about(data.bothWays.checkSeconds).replace(/^1 /, '') }}
          </p>
          <p v-else-if="data.bothWays.checkTimes">{{ data.bothWays.checkTimes }}</p>
          <p v-else class="mid">when somebody asks for it</p>
        </template>
        <h3>Ceiling</h3>
        <CeilingLines :ceiling="data.ceiling" :now="now" :zone="zone" />
        <h3>Live since</h3>
        <p>{{ dayAndTime(data.bridge.since, now, zone) }}</p>
        <details>
          <summary>The bridge as a document</summary>
          <pre tabindex="0">{{ data.document }}</pre>
        </details>
      </section>
    </div>
  </template>
</template>

<style scoped>
.then {
  margin-top: 20px;
}
.heading h1 {
  white-space: nowrap;
}
.pill:not(.held) {
  color: var(--kelp);
}
.shores {
  flex: 1;
  display: grid;
  grid-template-columns: 248px minmax(0, 1fr) 320px;
  min-height: 0;
}
section {
  padding: 14px 18px;
  overflow: auto;
}
.arriving {
  background: var(--sand);
  border-right: 1px solid var(--line);
}
.leaving {
  background: var(--tide);
  border-left: 1px solid var(--tide-line);
}
h3 {
  font-size: 13px;
  font-weight: 650;
  color: var(--ink-2);
  margin: 16px 0 2px;
}
ul {
  list-style: none;
  margin: 0 0 18px;
  padding: 0;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
details {
  margin-top: 18px;
}
summary {
  cursor: pointer;
  color: var(--kelp);
  font-weight: 600;
}
pre {
  font: 12px/17px var(--mono);
  white-space: pre-wrap;
  background: var(--panel);
  border: 1px solid var(--tide-line);
  border-radius: 4px;
  padding: 8px 10px;
}
</style>
