import { computed, onUnmounted, ref, shallowRef } from 'vue'
import { ProblemError } from '@/shared/http/client'
import { dropDraft, goLive, keepDraft, readDraft, type DraftView } from './api'
import type { Group } from './tree'

const PAUSE_BEFORE_KEEPING = 500
const MOST_UNDO = 200

/** How what is typed stands with what is kept. */
export type DraftState = 'kept' | 'typing' | 'keeping' | 'conflict' | 'failed'

/** A draft that keeps itself, with undo and redo for everything. */
export function useDraft(id: string) {
  const doc = shallowRef<Group | null>(null)
  const revision = ref(0)
  const liveVersion = ref<number | null>(null)
  const state = ref<DraftState>('kept')
  const error = ref('')
  const before = shallowRef<Group[]>([])
  const after = shallowRef<Group[]>([])
  let timer: number | undefined
  /** The save under way: one at a time, or the second would conflict with the first. */
  let saving: Promise<void> | undefined

  const text = computed(() => JSON.stringify(doc.value ?? {}))

  function take(view: DraftView, withText: boolean) {
    revision.value = view.revision
    liveVersion.value = view.liveVersion ?? null
    if (withText) doc.value = JSON.parse(view.document) as Group
  }

  async function load() {
    try {
      take(await readDraft(id), true)
      before.value = []
      after.value = []
      state.value = 'kept'
      error.value = ''
    } catch (e) {
      error.value = (e as Error).message
    }
  }

  /** Changes the document; what was before can be brought back. */
  function change(next: Group) {
    if (!doc.value || JSON.stringify(next) === text.value) return
    before.value = [...before.value.slice(-MOST_UNDO), doc.value]
    after.value = []
    doc.value = next
    soon()
  }

  function undo() {
    const last = before.value.at(-1)
    if (!last || !doc.value) return
    after.value = [...after.value, doc.value]
    before.value = before.value.slice(0, -1)
    doc.value = last
    soon()
  }

  function redo() {
    const next = after.value.at(-1)
    if (!next || !doc.value) return
    before.value = [...before.value, doc.value]
    after.value = after.value.slice(0, -1)
    doc.value = next
    soon()
  }

  function soon() {
    state.value = 'typing'
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void keep(), PAUSE_BEFORE_KEEPING)
  }

  /** Keeps what is typed, after a save that is under way; nothing is typed and not kept then. */
  async function keep() {
    window.clearTimeout(timer)
    while (saving) await saving
    if (state.value !== 'typing') return
    saving = save().finally(() => (saving = undefined))
    await saving
  }

  async function save() {
    state.value = 'keeping'
    const sent = text.value
    try {
      take(await keepDraft(id, sent, revision.value), false)
      error.value = ''
      // What was typed meanwhile has set its own state and timer.
      if (sent === text.value) state.value = 'kept'
    } catch (e) {
      error.value = (e as Error).message
      window.clearTimeout(timer)
      state.value = (e as ProblemError).status === 409 ? 'conflict' : 'failed'
    }
  }

  /** Puts the draft to work; gives whether it did. */
  async function putToWork(acceptExamples: boolean, acceptLoops = false): Promise<boolean> {
    retryFailed()
    await keep()
    if (state.value === 'conflict' || state.value === 'failed') return false
    try {
      await goLive(id, text.value, revision.value, acceptExamples, acceptLoops)
      take(await readDraft(id), true)
      state.value = 'kept'
      before.value = []
      after.value = []
      return true
    } catch (e) {
      error.value = (e as Error).message
      return false
    }
  }

  /** What could not be kept is offered again; a conflict is for a person to settle. */
  function retryFailed() {
    if (state.value === 'failed') state.value = 'typing'
  }

  async function drop() {
    await dropDraft(id)
    if (liveVersion.value !== null) await load()
  }

  // A closed page loses nothing: what was typed last is sent before it goes.
  const leaving = () => {
    retryFailed()
    void keep()
  }
  window.addEventListener('pagehide', leaving)
  onUnmounted(() => {
    window.removeEventListener('pagehide', leaving)
    leaving()
  })

  return {
    doc,
    text,
    revision,
    liveVersion,
    state,
    error,
    load,
    change,
    undo,
    redo,
    putToWork,
    drop,
    canUndo: computed(() => before.value.length > 0),
    canRedo: computed(() => after.value.length > 0),
  }
}
