<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useResource } from '@/shared/composables/resource'
import { withArticle } from '@/shared/format/words'
import ResourceState from '@/shared/ui/ResourceState.vue'
import OverDialog from '@/shared/ui/OverDialog.vue'
import { isCopy } from '@/features/copies'
import {
  addDraft,
  askPlace,
  copyDraft,
  fromYaml,
  readDraft,
  readPlaces,
  readStarters,
  type PlaceView,
  type Starter,
} from './api'

/** A new bridge: between two places, from a copy, or from a file; and what it is called. */
const props = defineProps<{ bridges: { id: string; name: string }[] }>()
const emit = defineEmits<{ close: [] }>()
const router = useRouter()
const { data, error, loading, load } = useResource(readPlaces)
void load()

type Way = 'places' | 'times' | 'copy' | 'file'
const way = ref<Way>('places')
const from = ref(0)
const to = ref(0)
const kinds = ref<string[]>([])
const starter = ref('')
const starters = ref<Starter[]>([])
const copied = ref(props.bridges[0]?.id ?? '')
const file = ref('')
const name = ref('')
const typedId = ref('')
const refused = ref('')
const answers = ref({ from: '', to: '' })

const id = computed(
  () =>
    typedId.value ||
    name.value
      .toLowerCase()
      .normalize('NFD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 64),
)
/** Where bridges begin by themselves, in place of a system. */
const TIME = 'time'
/** Chosen instead of a target: nothing is made, the record that the event came from is changed. */
const ITSELF = -1
const source = computed(() => data.value?.sources[from.value])
const target = computed(() => data.value?.targets[to.value])
const itself = computed(() => to.value === ITSELF)
const usable = computed(() =>
  way.value === 'copy'
    ? copied.value !== ''
    : way.value === 'file'
      ? file.value !== ''
      : way.value === 'times'
        ? !!target.value && !target.value.hindrance
        : !!source.value &&
          !source.value.hindrance &&
          (itself.value || (!!target.value && !target.value.hindrance)),
)

/** Asks the place itself, so that nobody builds a bridge to where we may not look. */
async function ask(place: PlaceView | undefined, end: 'from' | 'to') {
  answers.value[end] = ''
  if (!place || place.hindrance) return
  try {
    const answer = await askPlace(place)
    // Another place may have been chosen meanwhile.
    if (place !== (end === 'from' ? source : target).value) return
    answers.value[end] = answer.seen ? `${place.systemName} answers.` : answer.problem
  } catch (e) {
    answers.value[end] = (e as Error).message
  }
}
watch(source, (place) => {
  kinds.value = place?.kinds ?? []
  if (!place?.changes && itself.value) to.value = 0
  void ask(place, 'from')
})
watch(target, (place) => void ask(place, 'to'))
watch(way, () => {
  if (way.value === 'times' && itself.value) to.value = 0
})
watch([source, target], async () => {
  starter.value = ''
  if (!source.value || !target.value) return
  try {
    starters.value = await readStarters(source.value, target.value)
  } catch (e) {
    refused.value = (e as Error).message
  }
})

async function fromFile(event: Event) {
  const taken = (event.target as HTMLInputElement).files?.[0]
  if (!taken) return
  try {
    file.value = (await fromYaml(await taken.text())).document
    const document = JSON.parse(file.value) as Record<string, unknown>
    name.value = String(document.name ?? document.bridge ?? '')
    typedId.value = String(document.bridge ?? '')
    refused.value = ''
  } catch (e) {
    refused.value = (e as Error).message
  }
}

async function begin() {
  try {
    if (way.value === 'copy') {
      await copyDraft(id.value, name.value.trim(), (await readDraft(copied.value)).document)
      await isCopy(id.value, copied.value)
    } else if (way.value === 'file') {
      await copyDraft(id.value, name.value.trim(), file.value)
    } else if (way.value === 'times' && target.value) {
      await addDraft({
        id: id.value,
        name: name.value.trim(),
        sourceSystem: TIME,
        sourceCollection: '',
        kinds: [],
        targetSystem: target.value.system,
        targetCollection: target.value.collection,
        starter: '',
      })
    } else if (source.value && (itself.value || target.value)) {
      await addDraft({
        id: id.value,
        name: name.value.trim(),
        sourceSystem: source.value.system,
        sourceCollection: source.value.collection,
        kinds: kinds.value,
        targetSystem: target.value?.system ?? '',
        targetCollection: target.value?.collection ?? '',
        starter: starter.value,
      })
    }
    await router.push({ name: 'desk', params: { id: id.value } })
  } catch (e) {
    refused.value = (e as Error).message
  }
}
</script>

<template>
  <OverDialog title="A new bridge" wide @close="emit('close')">
    <ResourceState :loading="loading" :error="error" :has="data !== null" @retry="load" />
    <form v-if="data" id="new-bridge-form" @submit.prevent="begin">
      <fieldset class="ways">
        <legend class="unseen">How it begins</legend>
        <label><input v-model="way" type="radio" value="places" /> between two places</label>
        <label><input v-model="way" type="radio" value="times" /> when a time comes round</label>
        <label v-if="bridges.length"
          ><input v-model="way" type="radio" value="copy" /> as a copy of another</label
        >
        <label><input v-model="way" type="radio" value="file" /> from a document</label>
      </fieldset>
      <p v-if="way === 'times'" class="under mid">
        Every day, every fourth Friday, the last working day of a month: when it is, is said at its
        desk.
      </p>
      <template v-if="way === 'places'">
        <label
          ><span>When something happens in</span>
          <select v-model.number="from" class="in">
            <option v-for="(place, i) in data.sources" :key="i" :value="i">
              {{ place.systemName }}: {{ place.name }}{{ place.hindrance ? ' (not yet)' : '' }}
            </option>
          </select></label
        >
        <p v-if="source?.hindrance" class="under bad">{{ source.hindrance }}</p>
        <p v-else-if="answers.from" class="under mid">{{ answers.from }}</p>
        <fieldset v-if="source?.kinds.length" class="under kinds">
          <legend class="unseen">Which kinds of event</legend>
          <span class="mid">when {{ withArticle(source.record) }} is</span>
          <label v-for="kind in source.kinds" :key="kind"
            ><input v-model="kinds" type="checkbox" :value="kind" /> {{ kind }}</label
          >
        </fieldset>
      </template>
      <template v-if="way === 'places' || way === 'times'">
        <label
          ><span>make a task in</span>
          <select v-model.number="to" class="in">
            <option v-if="way === 'places' && source?.changes" :value="ITSELF">
              nothing is made: the {{ source.record }} itself is changed
            </option>
            <option v-for="(place, i) in data.targets" :key="i" :value="i">
              {{ place.systemName }}: {{ place.name }}{{ place.hindrance ? ' (not yet)' : '' }}
            </option>
          </select></label
        >
        <p v-if="target?.hindrance" class="under bad">{{ target.hindrance }}</p>
        <p v-else-if="target" class="under mid">
          {{ answers.to
          }}<template v-if="target.required.length">
            It needs {{ target.required.join(' and ') }}; the rules for them are there
            first.</template
          >
        </p>
        <fieldset v-if="way === 'places' && !itself" class="starters">
          <legend>Begin with</legend>
          <label class="starter"
            ><input v-model="starter" type="radio" value="" />
            <span><b>What is needed alone</b></span></label
          >
          <label v-for="one in starters" :key="one.id" class="starter">
            <input v-model="starter" type="radio" :value="one.id" :disabled="!!one.hindrance" />
            <span
              ><b>{{ one.name }}</b
              >: {{ one.about }}
              <span v-if="one.hindrance" class="dim">{{ one.hindrance }}</span></span
            >
          </label>
        </fieldset>
      </template>
      <label v-else-if="way === 'copy'"
        ><span>A copy of</span>
        <select v-model="copied" class="in">
          <option v-for="bridge in bridges" :key="bridge.id" :value="bridge.id">
            {{ bridge.name }}
          </option>
        </select></label
      >
      <label v-else
        ><span>The document</span>
        <input type="file" class="in" accept=".yaml,.yml,.json" @change="fromFile"
      /></label>
      <label><span>It is called</span><input v-model="name" class="in" required /></label>
      <label
        ><span>Its short name</span>
        <input
          class="in mono"
          :value="id"
          @input="typedId = ($event.target as HTMLInputElement).value"
      /></label>
      <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    </form>
    <template #acts="{ close }">
      <button type="button" class="btn" @click="close()">Cancel</button>
      <button form="new-bridge-form" class="btn main" :disabled="!id || !usable">
        Open its desk
      </button>
    </template>
  </OverDialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}
form > label {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}
form > label > span {
  text-align: right;
  color: var(--ink-2);
}
.under {
  padding-left: 192px;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}
.ways,
.kinds {
  display: flex;
  gap: 16px;
}
.ways {
  margin-bottom: 4px;
}
.starters {
  display: grid;
  gap: 2px;
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
  padding: 6px 0;
}
.starters legend {
  font-weight: 700;
  padding: 0 8px 0 0;
}
.starter {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
