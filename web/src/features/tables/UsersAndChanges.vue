<script setup lang="ts">
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'

/** Who uses a table or a calendar, and what became of it. */
defineProps<{
  users: { id: string; name: string }[]
  changes: { seq: number; at: string; by: string; what: string }[]
  /** Whether what it was after a change can be brought back. */
  back?: boolean
}>()
const emit = defineEmits<{ back: [seq: number] }>()
const { now, zone } = useSession()
</script>

<template>
  <section class="side" aria-label="Who uses it, and what became of it">
    <h2>Used by</h2>
    <ul v-if="users.length">
      <li v-for="user in users" :key="user.id">
        <RouterLink :to="{ name: 'bridge', params: { id: user.id } }">{{ user.name }}</RouterLink>
      </li>
    </ul>
    <p v-else class="mid">No live bridge.</p>
    <h2>Changes</h2>
    <p v-if="!changes.length" class="mid">None since changes are kept.</p>
    <ol>
      <li v-for="(change, i) in changes" :key="change.seq">
        <span class="mid">{{ dayAndTime(change.at, now, zone) }}</span>{{ ' ' }}{{ change.what }}
        <span v-if="change.by !== 'engine'" class="dim">by a {{ change.by }}</span>
        <button v-if="back && i > 0" class="btn bare" @click="emit('back', change.seq)">
          Bring it back
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.side {
  background: var(--tide);
  border-left: 1px solid var(--tide-line);
  padding: 14px 18px;
  overflow: auto;
}
ul,
ol,
p {
  margin: 0 0 18px;
}
ul,
ol {
  list-style: none;
  padding: 0;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--tide-line);
  overflow-wrap: anywhere;
}
</style>
