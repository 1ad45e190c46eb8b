<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { momentsIn } from '@/shared/format/time'
import type { Found } from './api'
import { fieldNames, KINDS, STANDS } from './words'

/** What a check found, each with both tasks and with what would be done about it. */
defineProps<{ found: Found[]; left: string; right: string; choosing: boolean }>()
const chosen = defineModel<number[]>('chosen', { required: true })
const { zone } = useSession()
const open = (one: Found) => one.state === 'FOUND' || one.state === 'NOT_PUT_RIGHT'
/** Where a task stands that is not there. */
const none = (one: Found) => (one.kind === 'NOT_MADE' ? 'not made' : '–')
</script>

<template>
  <table class="rows">
    <thead>
      <tr>
        <th scope="col" class="tick"><span class="unseen">Chosen</span></th>
        <th scope="col">Task</th>
        <th scope="col">{{ left }}</th>
        <th scope="col">{{ right }}</th>
        <th scope="col">What would be done</th>
        <th scope="col" class="stand"><span class="unseen">How it stands</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in found" :key="one.number">
        <td class="tick">
          <input
            v-if="open(one)"
            v-model="chosen"
            type="checkbox"
            :value="one.number"
            :disabled="!choosing"
            :aria-label="`Choose ${one.title}`"
          />
        </td>
        <th scope="row">
          {{ one.title }}
          <small class="mid"
            >{{ KINDS[one.kind]
            }}<template v-if="one.fields && one.kind !== 'MAY_BE_ONE'"
              >: {{ fieldNames(one) }}</template
            ></small
          >
        </th>
        <td v-for="(task, i) in [one.left, one.right]" :key="i" class="mono">
          <b v-if="one.kind === 'GONE' && one.side === (i === 0 ? 'LEFT' : 'RIGHT')" class="gone"
            >gone</b
          >
          <a
            v-else-if="task.page"
            :href="task.page"
            target="_blank"
            rel="noopener"
            :aria-label="`${one.title} at ${i === 0 ? left : right}`"
            >{{ task.record }}</a
          >
          <span v-else :class="{ dim: !task.record }">{{ task.record || none(one) }}</span>
        </td>
        <td class="words">
          <span v-for="line in one.words.split('\n')" :key="line">{{ momentsIn(line, zone) }}</span>
          <span v-if="one.kind === 'NOT_NOTED'"
            >Noted as what both agree on, so that the next change of one is not taken for one of
            both</span
          >
          <span v-if="one.kind === 'GONE'">The two become a pair no more</span>
          <span v-if="one.kind === 'APART' && one.state !== 'ASKED'"
            >A person is asked on Pairs which is right</span
          >
          <span v-if="one.kind === 'MAY_BE_ONE' && one.fields"
            >Asked on Pairs: {{ fieldNames(one) }}</span
          >
        </td>
        <td class="stand">
          <RouterLink v-if="one.trace" :to="{ name: 'trace', params: { id: one.trace } }">{{
            STANDS[one.state] || 'its trace'
          }}</RouterLink>
          <RouterLink
            v-else-if="one.state === 'ASKED'"
            :to="{ name: 'pairs', query: { show: 'disagreements' } }"
            >{{ STANDS.ASKED }}</RouterLink
          >
          <template v-else>{{ STANDS[one.state] }}</template>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
td,
th {
  vertical-align: top;
  padding-top: 6px !important;
  padding-bottom: 6px !important;
}
tbody th,
.words {
  font-weight: 400 !important;
  font-size: 14px !important;
  white-space: normal !important;
  overflow-wrap: anywhere;
}
tbody th {
  color: var(--ink) !important;
  width: 30%;
}
small {
  display: block;
  font-size: 12.5px;
  line-height: 18px;
}
.words span {
  display: block;
}
.tick {
  width: 30px;
}
.stand {
  text-align: right !important;
}
.gone {
  color: var(--failed);
}
a {
  text-decoration: underline;
}
</style>
