<script setup lang="ts">
import { ref, watch } from 'vue'
import { useResource } from '@/shared/composables/resource'
import { useSession } from '@/shared/composables/session'
import { dayAndTime } from '@/shared/format/time'
import RuleDifferences from '@/shared/ui/RuleDifferences.vue'
import {
  asYaml,
  fromYaml,
  readDifferences,
  readVersions,
  type RuleDifference,
  type VersionView,
} from './api'
import { isGroup, type Group, type Tree } from './tree'

/** The draft as its document: read, typed, copied, taken from a file, or from an earlier version. */
const props = defineProps<{ id: string; text: string }>()
const emit = defineEmits<{ change: [document: Group] }>()
const { now, zone } = useSession()
const yaml = ref('')
const error = ref('')
const said = ref('')
const typing = ref(false)
const chosen = ref<VersionView | null>(null)
const differences = ref<RuleDifference[] | null>(null)
const { data: versions, load: loadVersions } = useResource(() => readVersions(props.id))
let timer: number | undefined

async function show() {
  if (typing.value) return
  try {
    yaml.value = (await asYaml(props.text)).yaml
    error.value = ''
  } catch (e) {
    error.value = (e as Error).message
  }
}

/** What is typed counts once it can be read; until then it stays on the screen alone. */
async function take(text: string) {
  try {
    const tree = JSON.parse((await fromYaml(text)).document) as Tree
    if (isGroup(tree)) emit('change', tree)
    error.value = ''
  } catch (e) {
    error.value = `Not kept while it cannot be read: ${(e as Error).message}`
  }
}

function typed(text: string) {
  typing.value = true
  yaml.value = text
  window.clearTimeout(timer)
  timer = window.setTimeout(() => void take(text), 300)
}

async function left() {
  typing.value = false
  if (!error.value) await show()
}

async function copy() {
  await navigator.clipboard.writeText(yaml.value)
  said.value = 'Copied.'
}

async function fromFile(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) await take(await file.text())
}

async function look(number: string) {
  chosen.value = versions.value?.find((one) => String(one.number) === number) ?? null
  differences.value = null
  if (!chosen.value) return
  try {
    differences.value = await readDifferences(props.id, chosen.value.number, props.text)
  } catch (e) {
    error.value = `It cannot be compared: ${(e as Error).message}`
  }
}

async function bringBack() {
  if (!chosen.value) return
  await take(chosen.value.yaml)
  said.value = `This is version ${chosen.value.number} now, as a draft. Undo brings back what was.`
  chosen.value = null
}

watch(() => props.text, show, { immediate: true })
void loadVersions()
</script>

<template>
  <div class="whole">
    <div class="tools">
      <button class="btn" @click="copy">Copy as document</button>
      <label class="btn file"
        >Take from a file<input type="file" accept=".yaml,.yml,.json" @change="fromFile"
      /></label>
      <label v-if="versions?.length"
        >or look at
        <select
          class="in"
          :value="chosen?.number ?? ''"
          aria-label="An earlier version"
          @change="look(($event.target as HTMLSelectElement).value)"
        >
          <option value="">an earlier version</option>
          <option v-for="version in versions" :key="version.number" :value="version.number">
            version {{ version.number }}, {{ dayAndTime(version.madeAt, now, zone)
            }}{{ version.live ? ', live' : '' }}
          </option>
        </select></label
      >
      <span class="mid" role="status">{{ said }}</span>
    </div>
    <section v-if="chosen" class="version" :aria-label="`Version ${chosen.number}`">
      <p>
        <b>Version {{ chosen.number }}</b>
        <span class="mid">
          {{
            differences === null
              ? ''
              : differences.length
                ? 'beside the draft: as it was, and as the draft says it now'
                : 'says what the draft says'
          }}</span
        >
        <button class="btn" @click="bringBack">Bring it back</button>
        <button class="btn bare" @click="chosen = null">Close</button>
      </p>
      <RuleDifferences v-if="differences?.length" :differences="differences" />
      <details>
        <summary>Its document</summary>
        <pre class="mono" tabindex="0">{{ chosen.yaml }}</pre>
      </details>
    </section>
    <textarea
      class="in mono"
      rows="20"
      spellcheck="false"
      aria-label="The draft as a document"
      :value="yaml"
      @input="typed(($event.target as HTMLTextAreaElement).value)"
      @blur="left"
    ></textarea>
    <p v-if="error" class="bad">{{ error }}</p>
  </div>
</template>

<style scoped>
.whole {
  display: grid;
  gap: 8px;
}
.tools {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.version {
  border-left: 2px solid var(--clay);
  padding-left: 10px;
}
.version pre {
  white-space: pre-wrap;
}
summary {
  cursor: pointer;
  color: var(--kelp);
}
</style>
