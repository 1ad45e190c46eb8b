<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useActing } from '@/shared/composables/acting'
import { onChange } from '@/shared/composables/live'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import { counted } from '@/shared/format/words'
import EarlierRuns from '@/shared/ui/EarlierRuns.vue'
import ResourceState from '@/shared/ui/ResourceState.vue'
import FoundRows from './FoundRows.vue'
import MeetByHand from './MeetByHand.vue'
import RepairDialog from './RepairDialog.vue'
import {
  begin,
  leaveAlone,
  part,
  readChecks,
  readFound,
  stop,
  type Found,
  type FullCheck,
  type Kind,
} from './api'
import {
  alike,
  asked,
  at,
  goesOn,
  inAll,
  KINDS,
  left,
  leftAlone,
  open as openOf,
  putRight,
  who,
} from './words'

/** Both lists of a bridge held against what was agreed: what differs, and putting it right. */
const props = defineProps<{ id: string }>()
const route = useRoute()
const { now, zone } = useSession()
const PAGE = 100
const pages = ref(1)
const kind = ref<Kind | null>(null)
const chosen = ref<number[]>([])
const asking = ref<{ kinds: Kind[] } | { numbers: number[] } | null>(null)

const { data, error, loading, load } = useResource(async () => {
  const { bridgeName, left, right, checks } = await readChecks(props.id)
  const wanted = Number(route.query.check ?? 0)
  const check = checks.find((one) => one.id === wanted) ?? checks[0] ?? null
  const found: Found[] = []
  let more = check !== null
  for (let page = 0; page < pages.value && more; page++) {
    const next = await readFound(check!.id, kind.value, found.at(-1)?.number ?? 0)
    found.push(...next)
    more = next.length === PAGE
  }
  return { bridgeName, left, right, checks, check, found, more }
})
const { busy, error: refused, during } = useActing()
watch(
  () => [props.id, route.query.check],
  () => {
    kind.value = null
    chosen.value = []
    pages.value = 1
    void load()
  },
  { immediate: true },
)
onChange(
  (change) => change.bridge === props.id || change.bridge === '',
  () => void load(),
)

const check = computed<FullCheck | null>(() => data.value?.check ?? null)
const runs = computed(() => data.value?.checks.find(goesOn) ?? null)
const open = computed(() => (check.value?.state === 'ENDED' ? left(check.value) : 0))
const choosing = computed(() => check.value?.state === 'ENDED')
/** What is left of a kind that is not put right. */
const leftOf = (of: Kind) => {
  const one = check.value!.kinds.find((each) => each.kind === of)
  return one ? openOf(one) : 0
}
/** What would be put right: what is ticked, else all of the kind that is shown. */
const meant = computed(() => {
  if (chosen.value.length) {
    const ticked = data.value!.found.filter((one) => chosen.value.includes(one.number))
    return Object.keys(KINDS).map((of) => ({
      kind: of as Kind,
      many: ticked.filter((one) => one.kind === of).length,
    }))
  }
  // Which tasks are the same is said of them alone, never with all the rest.
  const all = (Object.keys(KINDS) as Kind[]).filter((of) => of !== 'MAY_BE_ONE')
  const any = all.some((of) => leftOf(of) > 0)
  const shown = kind.value ? [kind.value] : any ? all : (['MAY_BE_ONE'] as Kind[])
  return shown.map((of) => ({ kind: of, many: leftOf(of) })).filter((one) => one.many > 0)
})
const many = computed(() => meant.value.reduce((sum, one) => sum + one.many, 0))
const wish = () =>
  chosen.value.length
    ? { numbers: [...chosen.value] }
    : { kinds: meant.value.map((one) => one.kind) }

/** Whether all that is ticked is of a kind. */
const allOf = (of: Kind) =>
  chosen.value.length > 0 && meant.value.every((one) => one.kind === of || one.many === 0)
const mayBeOne = computed(() => allOf('MAY_BE_ONE'))
const notMade = computed(() => allOf('NOT_MADE'))
async function leaveThem() {
  await act(() => leaveAlone(check.value!.id, chosen.value))
  chosen.value = []
}
async function theyAreTwo() {
  await act(() => part(check.value!.id, chosen.value))
  chosen.value = []
}

function show(of: Kind | null) {
  kind.value = of
  chosen.value = []
  pages.value = 1
  void load()
}
async function act(doing: () => Promise<unknown>) {
  await during(doing)
  await load()
}
function begun() {
  chosen.value = []
  void load()
}
function more() {
  pages.value++
  void load()
}
const earlier = computed(() =>
  data.value!.checks.map((one) => ({
    id: one.id,
    begunAt: one.begunAt,
    to: { name: 'full-check', params: { id: props.id }, query: { check: one.id } },
    words: `${at(one)}, ${who(one)}`,
  })),
)
const lacking = (one: FullCheck) =>
  [one.left, one.right]
    .filter((list) => list.lacks)
    .map((list) => `The list of ${list.place} does not tell ${list.lacks}`)
</script>

<template>
  <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
  <template v-if="data">
    <div class="heading">
      <h1>Full check</h1>
      <RouterLink class="mid" :to="{ name: 'bridge', params: { id } }"
        >of {{ data.bridgeName }}</RouterLink
      >
      <span v-if="check" class="pill" role="status">{{ at(check) }}</span>
      <span class="gap"></span>
      <button v-if="runs" class="btn" :disabled="busy" @click="act(() => stop(runs!.id))">
        Stop
      </button>
      <button
        v-else
        class="btn"
        :class="{ main: !open }"
        :disabled="busy"
        @click="act(() => begin(id))"
      >
        Check both sides now
      </button>
      <button
        v-if="mayBeOne && !runs"
        class="btn"
        :disabled="busy"
        title="Each of them then stands for itself, and can be made on the other side"
        @click="theyAreTwo"
      >
        {{ chosen.length === 1 ? 'They are two' : 'Each is two' }}
      </button>
      <button
        v-if="notMade && !runs"
        class="btn"
        :disabled="busy"
        title="Nothing is made of it on the other side, whatever becomes of it, until it is taken up on Pairs"
        @click="leaveThem"
      >
        Leave {{ chosen.length === 1 ? 'it as it is' : 'them as they are' }}
      </button>
      <button
        v-if="open && !runs"
        class="btn main"
        :disabled="busy || !many"
        @click="asking = wish()"
      >
        Put {{ chosen.length || kind || many === 1 ? '' : 'all '
        }}{{ many.toLocaleString('en') }} right…
      </button>
    </div>
    <p v-if="refused" class="note bad" role="alert">{{ refused }}</p>
    <p v-if="!check" class="note">
      Nothing was checked yet. A full check reads both lists and holds each task against what was
      agreed; it finds what no event told of, such as webhooks that were lost or a copy that was put
      back. It only reads.
    </p>
    <template v-else>
      <p class="note" :class="{ bad: check.problem }">
        <span v-if="check.problem">{{ check.problem + ' ' }}</span>
        {{ counted(check.left.read, 'task') }} of {{ check.left.place }} and
        {{ counted(check.right.read, 'task') }} of {{ check.right.place }} were read, begun
        {{ dayAndTime(check.begunAt, now, zone) }}, {{ who(check) }}.
        <template v-if="check.state === 'ENDED'">{{ alike(check) + ' ' }}</template>
        <template v-if="check.aside"
          >{{ counted(check.aside, 'task') }} {{ check.aside === 1 ? 'has' : 'have' }} no part in
          it.
        </template>
        <template v-if="asked(check)"
          >{{ asked(check).toLocaleString('en') }} of the differences
          {{ asked(check) === 1 ? 'waits' : 'wait' }} on
          <RouterLink :to="{ name: 'pairs', query: { show: 'disagreements' } }">Pairs</RouterLink>
          for a person to say what is right.
        </template>
        <template v-if="putRight(check)"
          >{{ putRight(check).toLocaleString('en') }} of {{ counted(inAll(check), 'difference') }}
          {{ putRight(check) === 1 ? 'is' : 'are' }} put right.
        </template>
        <template v-if="leftAlone(check)"
          >{{ counted(leftAlone(check), 'task') }}
          {{ leftAlone(check) === 1 ? 'is left as it is' : 'are left as they are' }}.
        </template>
        <span v-for="line in lacking(check)" :key="line">
          {{ line }}, so each of its tasks was looked at by itself.
        </span>
      </p>
      <nav v-if="check.kinds.length > 1" class="kinds" aria-label="Kinds of difference">
        <button type="button" :aria-pressed="kind === null" @click="show(null)">
          All <b>{{ inAll(check) }}</b>
        </button>
        <button
          v-for="one in check.kinds"
          :key="one.kind"
          type="button"
          :aria-pressed="kind === one.kind"
          @click="show(one.kind)"
        >
          {{ KINDS[one.kind] }} <b>{{ one.found }}</b>
        </button>
      </nav>
      <div class="list">
        <FoundRows
          v-if="data.found.length"
          v-model:chosen="chosen"
          :found="data.found"
          :left="check.left.system"
          :right="check.right.system"
          :choosing="choosing"
        />
        <button v-if="data.more" class="btn" @click="more">More of them</button>
      </div>
      <EarlierRuns
        v-if="data.checks.length > 1"
        title="All checks"
        :runs="earlier"
        :current="check.id"
      />
    </template>
    <MeetByHand :bridge="id" :left="data.left" :right="data.right" />
    <RepairDialog
      v-if="asking && check"
      :check="check.id"
      :what="meant"
      :wish="asking"
      :left="check.left.system"
      :right="check.right.system"
      @close="asking = null"
      @begun="begun"
    />
  </template>
</template>

<style scoped>
.list {
  padding: 0 20px 16px;
}
.list .btn {
  margin-top: 10px;
}
.note a {
  text-decoration: underline;
}
.kinds {
  display: flex;
  gap: 4px;
  padding: 0 20px 8px;
}
.kinds button {
  border: 0;
  background: none;
  padding: 3px 9px;
  border-radius: 4px;
  color: var(--ink-2);
  cursor: pointer;
}
.kinds button[aria-pressed='true'] {
  background: var(--panel);
  color: var(--ink);
  font-weight: 600;
}
</style>
