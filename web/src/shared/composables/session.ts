import { ref } from 'vue'
import { get, type Schemas } from '@/shared/http/client'

const zone = ref('')
const now = ref(new Date())
const failed = ref('')
let ahead = 0

/** The application's time and the zone in which times are shown. */
export function useSession() {
  return { zone, now, failed, load }
}

async function load() {
  try {
    const session = await get<Schemas['Session']>('/api/session')
    zone.value = session.zone
    ahead = new Date(session.now).getTime() - Date.now()
    tick()
    failed.value = ''
    setInterval(tick, 1000)
  } catch (e) {
    failed.value = (e as Error).message
  }
}

function tick() {
  now.value = new Date(Date.now() + ahead)
}
