<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useSession } from '@/shared/composables/session'
import { fullTime } from '@/shared/format/time'
import VerdictMark from '@/shared/ui/VerdictMark.vue'
import { lookAtCertificates, trusting, type CertificateView } from './connect'

/** The certificates that a system shows, and which of them is trusted for it alone. */
const props = defineProps<{ document: string }>()
const emit = defineEmits<{ trust: [document: string] }>()
const { zone } = useSession()
const looked = ref<Awaited<ReturnType<typeof lookAtCertificates>> | null>(null)
const refused = ref('')
const busy = ref(false)

const says = computed(() => /^trust:/m.test(props.document))
const address = computed(() => /^address:.*$/m.exec(props.document)?.[0] ?? '')
watch(address, () => (looked.value = null))

async function look() {
  busy.value = true
  refused.value = ''
  try {
    looked.value = await lookAtCertificates(props.document)
  } catch (e) {
    refused.value = (e as Error).message
  } finally {
    busy.value = false
  }
}

/** Looks again with what is said then, so that what it comes to is seen. */
function say(trust: string) {
  emit('trust', trusting(props.document, trust))
  looked.value = null
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1) + '.'
const said = computed(() => {
  if (!looked.value) return ''
  if (!looked.value.trusted) return sentence(looked.value.problem)
  return looked.value.certificates.length
    ? 'It is trusted as the document stands.'
    : 'It speaks no TLS here, and shows none.'
})
const pinned = (one: CertificateView) => `trust: { certificate: "${one.digest}" }`
const authority = (one: CertificateView) =>
  [
    'trust:',
    '  authority: |',
    ...one.pem
      .trim()
      .split('\n')
      .map((line) => `    ${line}`),
  ].join('\n')
</script>

<template>
  <section aria-label="Its certificate">
    <h2>Its certificate</h2>
    <p class="line">
      <button class="btn" type="button" :disabled="busy" @click="look">
        {{ busy ? 'Looking…' : 'Look at what it shows' }}
      </button>
      <template v-if="looked">
        <VerdictMark :kind="looked.trusted ? 'DONE' : 'FAILED'" />
        <span :class="{ bad: !looked.trusted }">{{ said }}</span>
      </template>
      <span v-else class="mid">{{
        says
          ? 'The document says what is trusted.'
          : 'The usual authorities are trusted. Look at a private certificate before you trust it.'
      }}</span>
    </p>
    <p v-if="refused" class="note bad" role="alert">{{ refused }}</p>
    <template v-if="looked">
      <dl v-for="(one, i) in looked.certificates" :key="one.digest">
        <dt>{{ i === 0 ? 'Its own' : 'Vouched for by' }}</dt>
        <dd>{{ one.subject }}</dd>
        <dt>Signed by</dt>
        <dd>{{ one.issuer === one.subject ? 'itself' : one.issuer }}</dd>
        <template v-if="one.names.length">
          <dt>Made out for</dt>
          <dd>{{ one.names.join(', ') }}</dd>
        </template>
        <dt>Good</dt>
        <dd>
          from {{ fullTime(one.from, zone) }} until {{ fullTime(one.until, zone) }} {{ zone }}
        </dd>
        <dt>SHA-256</dt>
        <dd class="mono digest">{{ one.digest.slice(0, 48) }}<wbr />{{ one.digest.slice(48) }}</dd>
        <dd v-if="!looked.trusted" class="ways">
          <button v-if="i === 0" class="btn" type="button" @click="say(pinned(one))">
            Trust exactly this certificate
          </button>
          <button v-if="one.signsOthers" class="btn" type="button" @click="say(authority(one))">
            Trust what this one signs
          </button>
        </dd>
      </dl>
      <p v-if="looked.certificates.length && !looked.trusted" class="mid">
        Compare the SHA-256 with whoever keeps the system, by another way than this connection. It
        is trusted for this system alone.
      </p>
    </template>
    <p v-if="says">
      <button class="btn" type="button" @click="say('')">Trust only the usual authorities</button>
    </p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 14px;
  margin: 0 0 6px;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0 0 6px;
}
dl {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 2px 10px;
  margin: 6px 0;
}
dd {
  margin: 0;
  min-width: 0;
  overflow-wrap: anywhere;
}
.digest {
  font-size: 12.5px;
}
.ways {
  grid-column: 2;
  display: flex;
  gap: 8px;
  padding-top: 4px;
}
</style>
