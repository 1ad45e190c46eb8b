<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/shared/composables/session'
import { age, dayAndTime, timeOfDay } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { SendAgain } from '@/features/resend'
import type { Trouble } from '@/features/systems'
import type { BridgeLine, BrokenLine, NeedsYou, NoRoom, OutageLine } from './api'

const props = withDefaults(
  defineProps<{
    items: NeedsYou[]
    bridges: BridgeLine[]
    troubles: Trouble[]
    outages?: OutageLine[]
    broken?: BrokenLine[]
    noRoom?: NoRoom | null
  }>(),
  { outages: () => [], broken: () => [], noRoom: null },
)
const emit = defineEmits<{ changed: [] }>()

/** What is said of a system as a whole need not be said of its collections again. */
const others = computed(() =>
  props.troubles.filter((one) => !props.outages.some((out) => out.system === one.system)),
)
const count = computed(
  () =>
    props.items.length +
    held.value.length +
    others.value.length +
    props.outages.length +
    props.broken.length +
    (props.noRoom ? 1 : 0),
)
const held = computed(() => props.bridges.filter((line) => line.heldSince !== null))
const { now, zone } = useSession()

function waiting(deliveries: number): string {
  const many = deliveries.toLocaleString('en')
  return deliveries === 1
    ? ', 1 delivery waits and goes on by itself'
    : `, ${many} deliveries wait and go on by themselves`
}
</script>

<template>
  <section aria-labelledby="needs">
    <h2 id="needs">Needs you <small v-if="count">most first</small></h2>
    <p v-if="count === 0" class="calm mid">
      Nothing waits for a person. What fails shows up here, with its cause and what to do.
    </p>
    <ul v-else class="needs">
      <li v-if="noRoom">
        <VerdictMark kind="FAILED" />
        <p>
          <b>The disk is nearly full</b>: everything stands still
          <small
            >{{ noRoom.text }} Make room, and everything goes on by itself. Whoever sends webhooks
            is told to send them again.</small
          >
        </p>
        <span class="mono dim" :title="dayAndTime(noRoom.since, now, zone)">
          for {{ age(noRoom.since, now) }}
        </span>
        <span></span>
      </li>
      <li v-for="item in items" :key="item.bridge + item.kind">
        <VerdictMark kind="FAILED" />
        <p>
          <b>{{ item.bridgeName }}</b>: {{ counted(item.traces, 'event') }} failed, {{ item.kind }}
          <small>{{ item.text }}</small>
        </p>
        <span class="mono dim" :title="dayAndTime(item.oldest, now, zone)">
          for {{ age(item.oldest, now) }}
        </span>
        <span class="acts">
          <SendAgain
            v-if="item.failure !== 'ANSWER_UNKNOWN'"
            :waiting="item"
            @begun="emit('changed')"
          />
          <RouterLink
            class="btn"
            :to="{
              name: 'traces',
              query: { bridge: item.bridge, verdict: 'needs-you', span: '30d' },
            }"
          >
            {{ item.traces === 1 ? 'See the trace' : `See ${item.traces} traces` }}
          </RouterLink>
        </span>
      </li>
      <li v-for="one in broken" :key="one.id">
        <VerdictMark kind="FAILED" />
        <p>
          <b>{{ one.id }}</b> cannot be used any more<template v-if="one.waiting"
            >, {{ counted(one.waiting, 'event') }} wait</template
          >
          <small>{{ one.problem }}</small>
        </p>
        <span></span>
        <RouterLink class="btn" :to="{ name: 'desk', params: { id: one.id } }"
          >Mend it on the desk</RouterLink
        >
      </li>
      <li v-for="one in outages" :key="one.system">
        <VerdictMark kind="FAILED" />
        <p>
          <b>{{ one.name }}</b> does not work just now<template v-if="one.waiting">{{
            waiting(one.waiting)
          }}</template>
          <small
            >{{ one.text
            }}<template v-if="one.nextProbe">
              It is called again at {{ timeOfDay(one.nextProbe, zone) }}.</template
            ></small
          >
        </p>
        <span class="mono dim" :title="dayAndTime(one.since, now, zone)">
          for {{ age(one.since, now) }}
        </span>
        <RouterLink class="btn" :to="{ name: 'systems' }">See the system</RouterLink>
      </li>
      <li v-for="one in others" :key="one.system + one.where">
        <VerdictMark kind="FAILED" />
        <p>
          <b>{{ one.name }}</b><template v-if="one.where">, {{ one.where }}</template> does not
          answer as it should
          <small>{{ one.problem }}</small>
        </p>
        <span></span>
        <RouterLink class="btn" :to="{ name: 'systems' }">See the system</RouterLink>
      </li>
      <li v-for="line in held" :key="line.id">
        <VerdictMark kind="HELD" />
        <p>
          <b>{{ line.name }}</b> is held<template v-if="line.waiting"
            >, {{ counted(line.waiting, 'event') }} wait</template
          >
          <small>{{ line.heldBecause }}</small>
        </p>
        <span class="mono dim" :title="dayAndTime(line.heldSince!, now, zone)">
          for {{ age(line.heldSince!, now) }}
        </span>
        <RouterLink class="btn" :to="{ name: 'bridge', params: { id: line.id } }"
          >See the bridge</RouterLink
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 18px;
}
.calm {
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.needs {
  list-style: none;
  margin: 0;
  padding: 0;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 6px;
}
.needs li {
  display: grid;
  grid-template-columns: 16px minmax(0, 1fr) auto minmax(128px, auto);
  gap: 12px;
  align-items: center;
  padding: 8px 12px;
  border-bottom: 1px solid var(--line);
}
.needs li:last-child {
  border: 0;
}
.needs > li > .btn {
  justify-self: end;
}
.acts {
  display: flex;
  gap: 8px;
  justify-content: end;
}
small {
  display: block;
  color: var(--ink-2);
  font-size: 13px;
  line-height: 18px;
  overflow-wrap: anywhere;
}
h2 small {
  display: inline;
}
</style>
