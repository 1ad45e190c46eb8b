<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useSession } from '@/shared/composables/session'
import { useLive } from '@/shared/composables/live'
import { clockText, placeName } from '@/shared/format/time'

const router = useRouter()
const route = useRoute()
const within = (...places: string[]) => ({
  'router-link-active': places.some((place) => route.path.startsWith(place)),
})
const { zone, now, failed, load } = useSession()
const { connected } = useLive()
const text = ref('')
const find = useTemplateRef<HTMLInputElement>('find')

const clock = computed(() =>
  zone.value ? clockText(now.value, zone.value) : { day: '', time: '' },
)
const place = computed(() => placeName(zone.value))

function search() {
  void router.push({ name: 'traces', query: { text: text.value.trim(), span: '30d' } })
}

function focusFind(event: KeyboardEvent) {
  const at = event.target as HTMLElement
  const typing = at.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(at.tagName)
  if (event.key === '/' && !typing && !event.ctrlKey && !event.metaKey) {
    event.preventDefault()
    find.value?.focus()
  }
}

onMounted(() => {
  void load()
  window.addEventListener('keydown', focusFind)
})
onUnmounted(() => window.removeEventListener('keydown', focusFind))
</script>

<template>
  <a class="skip" href="#main">Skip to the content</a>
  <header class="bar">
    <RouterLink class="name" to="/watch">
      <svg width="26" height="20" viewBox="0 0 26 20" aria-hidden="true">
        <path
          d="M0 0h9c-2.500 4-2.500 7 0 8h8c2.500-1 2.500-4 0-8h9v20h-9c2.500-4 2.500-7 0-8H9c-2.500 1-2.500 4 0 8H0z"
          fill="currentColor"
        />
      </svg>
      Ysthmos
    </RouterLink>
    <nav aria-label="Places">
      <RouterLink to="/watch" :class="within('/watch', '/to-come')">Watch</RouterLink>
      <RouterLink to="/bridges" :class="within('/bridges', '/hangs-on')">Bridges</RouterLink>
      <RouterLink to="/traces" :class="within('/traces', '/where')">Traces</RouterLink>
      <RouterLink to="/pairs" :class="within('/pairs')">Pairs</RouterLink>
      <RouterLink to="/systems" :class="within('/systems')">Systems</RouterLink>
      <RouterLink to="/tables" :class="within('/tables', '/calendars')">Tables</RouterLink>
    </nav>
    <form class="find" role="search" @submit.prevent="search">
      <input
        ref="find"
        v-model="text"
        type="search"
        aria-label="Find an id, a title, a mail address"
        placeholder="Find an id, a title, a mail address"
      />
      <kbd aria-hidden="true">/</kbd>
    </form>
    <span v-if="zone" class="clock" :title="`Times are shown in ${zone}`">
      {{ clock.day }}, <span class="mono">{{ clock.time }}</span> {{ place }}
    </span>
    <span v-if="!connected" class="apart" role="status">Not live, connecting again…</span>
  </header>
  <main id="main" tabindex="-1">
    <p v-if="failed" class="note bad" role="alert">{{ failed }}</p>
    <RouterView v-else-if="zone" />
  </main>
</template>

<style scoped>
.bar {
  height: 44px;
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 0 20px;
  border-bottom: 1px solid var(--line-2);
  background: var(--panel);
  flex: none;
}
.name {
  font-weight: 700;
  font-size: 16px;
  color: var(--kelp);
  margin-right: 20px;
  display: flex;
  gap: 8px;
  align-items: center;
}
nav {
  display: flex;
  gap: 4px;
}
nav a {
  padding: 12px 12px 10px;
  color: var(--ink-2);
  border-bottom: 2px solid transparent;
}
nav a:hover {
  color: var(--ink);
}
nav a.router-link-active {
  color: var(--ink);
  font-weight: 650;
  border-color: var(--clay);
}
.find {
  margin-left: auto;
  width: 280px;
  position: relative;
}
.find input {
  width: 100%;
  height: 30px;
  padding: 0 34px 0 10px;
  border: 1px solid var(--line-2);
  border-radius: 4px;
  background: var(--ground);
  color: var(--ink);
}
.find input::placeholder {
  color: var(--ink-3);
}
.find kbd {
  position: absolute;
  right: 8px;
  top: 6px;
}
.clock {
  margin-left: 16px;
  color: var(--ink-2);
  white-space: nowrap;
}
.apart {
  margin-left: 12px;
  color: var(--held);
  font-weight: 600;
}
main {
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: flex;
  flex-direction: column;
}
main:focus {
  outline: none;
}
</style>
