<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import CallTrials from './CallTrials.vue'
import CertificateLook from './CertificateLook.vue'
import DraftSource from './DraftSource.vue'
import { keepSystem, readDescribed, readDocument, type Described, type RemarkView } from './connect'

/** A system is connected: its document drafted or changed, its calls tried, then kept. */
const props = defineProps<{ id?: string }>()
const router = useRouter()
const started = ref(false)
const text = ref('')
const remarks = ref<RemarkView[]>([])
const described = ref<Described | null>(null)
const problem = ref('')
const refused = ref('')
const keeping = ref(false)
const secrets = reactive<Record<string, string>>({})
let timer: number | undefined
const speaksTls = computed(() => /^(https|imaps?):/.test(described.value?.address ?? ''))

function begin(document: string, said: RemarkView[]) {
  text.value = document
  remarks.value = said
  started.value = true
}

async function describe() {
  if (!text.value.trim()) {
    described.value = null
    problem.value = ''
    return
  }
  const asked = text.value
  try {
    const answer = await readDescribed(asked)
    if (asked !== text.value) return
    described.value = answer
    problem.value = ''
  } catch (e) {
    if (asked === text.value) problem.value = (e as Error).message
  }
}

watch(text, () => {
  window.clearTimeout(timer)
  timer = window.setTimeout(() => void describe(), 300)
})

async function keep() {
  keeping.value = true
  refused.value = ''
  try {
    await keepSystem(text.value, secrets)
    await router.push({ name: 'systems' })
  } catch (e) {
    refused.value = (e as Error).message
  } finally {
    keeping.value = false
  }
}

if (props.id) {
  readDocument(props.id).then(
    (kept) => begin(kept.document ?? '', []),
    (e: Error) => (refused.value = e.message),
  )
}
</script>

<template>
  <div class="connect">
    <p class="back"><RouterLink :to="{ name: 'systems' }">Systems</RouterLink></p>
    <h1>{{ id ? (described?.name ?? id) : 'Connect a system' }}</h1>
    <DraftSource v-if="!started && !id" @draft="begin" />
    <div v-if="started" class="sides">
      <section aria-label="Its document">
        <h2>Its document</h2>
        <textarea
          v-model="text"
          class="in mono"
          spellcheck="false"
          aria-label="The document of the system"
        ></textarea>
      </section>
      <section aria-label="What it says" class="says">
        <p v-if="problem" class="note bad" role="alert">{{ problem }}</p>
        <template v-if="remarks.length">
          <h2>Look at this</h2>
          <ul class="remarks">
            <li v-for="one in remarks" :key="one.about + one.text">
              <b v-if="one.about">{{ one.about }}</b> {{ one.text }}
            </li>
          </ul>
        </template>
        <p v-if="!id && described?.known" class="note bad" role="note">
          A system “{{ described.id }}” is connected already, and this would take the place of its
          document. To connect a second one, give it another id in the first line.
        </p>
        <template v-if="described">
          <template v-if="described.secrets.length">
            <h2>Secrets</h2>
            <label v-for="secret in described.secrets" :key="secret.name" class="secret"
              ><span class="mono">{{ secret.name }}</span>
              <input
                v-model="secrets[secret.name]"
                class="in"
                type="password"
                autocomplete="off"
                :placeholder="secret.kept ? 'one is kept; type to replace it' : 'not known yet'"
              />
            </label>
          </template>
          <CertificateLook v-if="speaksTls" :document="text" @trust="text = $event" />
          <h2>Try it, call by call</h2>
          <CallTrials
            v-for="collection in described.collections"
            :key="collection.id"
            :collection="collection"
            :document="text"
            :secrets="secrets"
          />
        </template>
        <p v-if="refused" class="note bad" role="alert">{{ refused }}</p>
      </section>
    </div>
    <p v-else-if="refused" class="note bad" role="alert">{{ refused }}</p>
    <footer v-if="started">
      <button class="btn main" :disabled="keeping || !described || problem !== ''" @click="keep">
        {{
          id
            ? 'Keep the changed document'
            : described?.known
              ? 'Replace its document'
              : 'Connect it'
        }}
      </button>
      <span class="mid">{{
        described?.known
          ? 'Live bridges go on with it at once; one that could not is named and nothing is kept.'
          : 'From then on bridges can start there, lead there and look things up.'
      }}</span>
    </footer>
  </div>
</template>

<style scoped>
.connect {
  padding: 14px 20px;
  height: 100%;
  box-sizing: border-box;
  display: flex;
  flex-direction: column;
  overflow: auto;
}
.back {
  margin: 0;
}
h1 {
  margin: 2px 0 12px;
}
h2 {
  font-size: 14px;
  margin: 0 0 6px;
}
.sides {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 22px;
}
.sides > section {
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.says {
  overflow: auto;
  gap: 10px;
  padding-right: 6px;
}
textarea {
  flex: 1;
  min-height: 320px;
  resize: none;
  font-size: 13px;
}
.remarks {
  margin: 0;
  padding: 8px 10px 8px 26px;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 4px;
}
.secret {
  display: grid;
  grid-template-columns: 220px 1fr;
  gap: 10px;
  align-items: center;
}
footer {
  display: flex;
  gap: 12px;
  align-items: center;
  padding-top: 12px;
}
</style>
