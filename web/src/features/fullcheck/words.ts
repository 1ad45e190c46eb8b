import { counted } from '@/shared/format/words'
import type { Found, FullCheck, Kind } from './api'

/** What a kind is called, in the order in which they stand. */
export const KINDS: Record<Kind, string> = {
  NOT_CARRIED: 'Not carried across',
  NOT_MADE: 'Not made on the other side',
  MAY_BE_ONE: 'May be the same',
  GONE: 'Gone on one side',
  APART: 'Changed apart',
  NOT_NOTED: 'Alike, and not noted',
  UNCLEAR: 'Cannot be told',
}

/** What putting one of a kind right does. */
const DOES: Record<Kind, (many: number) => string> = {
  NOT_CARRIED: (many) => `${counted(many, 'change')} carried across`,
  NOT_MADE: (many) => `${counted(many, 'task')} made on the other side`,
  MAY_BE_ONE: (many) => `${counted(many, 'pair')} made of two tasks that are there`,
  GONE: (many) => `${counted(many, 'pair')} ended as the bridge says for what is gone`,
  APART: (many) => `${counted(many, 'question')} asked on Pairs`,
  NOT_NOTED: (many) => `${counted(many, 'agreement')} noted`,
  UNCLEAR: (many) => `${counted(many, 'look')} tried once more`,
}

/** What would come of putting some right, each kind on its own line. */
export function doing(found: { kind: Kind; many: number }[]): string[] {
  return found.filter((one) => one.many > 0).map((one) => DOES[one.kind](one.many))
}

export const goesOn = (check: FullCheck) => !['ENDED', 'STOPPED', 'FAILED'].includes(check.state)

/** How many of a kind are to be put right: they are neither under way nor asked on Pairs. */
export const open = (kind: FullCheck['kinds'][number]) =>
  kind.found - kind.asked - kind.waiting - kind.putRight - kind.left

/** How many of all kinds are. */
export const left = (check: FullCheck) => check.kinds.reduce((sum, kind) => sum + open(kind), 0)

export const putRight = (check: FullCheck) =>
  check.kinds.reduce((sum, kind) => sum + kind.putRight, 0)

/** `3 of 4 pairs were alike.` */
export function alike(check: FullCheck): string {
  const many = Math.max(0, check.pairs - check.differ)
  const pairs = counted(check.pairs, 'pair')
  if (!check.pairs) return 'There are no pairs yet.'
  if (many === 0) return check.pairs === 1 ? 'The one pair differed.' : `All ${pairs} differed.`
  if (many === check.pairs)
    return many === 1 ? 'The one pair was alike.' : `All ${pairs} were alike.`
  return `${many.toLocaleString('en')} of ${pairs} ${many === 1 ? 'was' : 'were'} alike.`
}

/** How many are left as they are, as a person said. */
export const leftAlone = (check: FullCheck) => check.kinds.reduce((sum, kind) => sum + kind.left, 0)

/** Of how many a person was asked before. */
export const asked = (check: FullCheck) => check.kinds.reduce((sum, kind) => sum + kind.asked, 0)

export const inAll = (check: FullCheck) => check.kinds.reduce((sum, kind) => sum + kind.found, 0)

/** What it is at just now. */
export function at(check: FullCheck): string {
  switch (check.state) {
    case 'READING_LEFT':
      return `Reading ${check.left.place}: ${counted(check.left.read, 'task')} so far`
    case 'MISSING_LEFT':
      return `Looking for what ${check.left.place} lacks`
    case 'READING_RIGHT':
      return `Reading ${check.right.place}: ${counted(check.right.read, 'task')} so far`
    case 'MISSING_RIGHT':
      return `Looking for what ${check.right.place} lacks`
    case 'LOOKING':
      return `Looking closer at what stands out: ${check.toLook.toLocaleString('en')} left`
    case 'MEETING':
      return 'Looking for tasks of both that may be the same'
    case 'COMPARING':
      return `Looking at those that may be the same: ${check.toLook.toLocaleString('en')} left`
    case 'REPAIRING': {
      const waiting = check.kinds.reduce((sum, kind) => sum + kind.waiting, 0)
      return `Putting right: ${waiting.toLocaleString('en')} left`
    }
    case 'STOPPED':
      return 'Stopped before it was through'
    case 'FAILED':
      return 'Broke off'
    case 'ENDED':
      return inAll(check) ? `${counted(inAll(check), 'difference')} found` : 'All alike'
  }
}

export const who = (check: FullCheck) =>
  check.askedBy === 'engine' ? 'as the bridge says' : `asked for by a ${check.askedBy}`

/** A field by its name in the document: `given-to` becomes `given to`. */
export const fieldNames = (found: Found) => found.fields.replaceAll('-', ' ')

export const STANDS: Record<Found['state'], string> = {
  TO_LOOK: '',
  MET: '',
  FOUND: '',
  ASKED: 'asked on Pairs',
  LEFT: 'left as it is',
  WAITING: 'waits for its turn',
  UNDER_WAY: 'on its way',
  PUT_RIGHT: 'put right',
  NOT_PUT_RIGHT: 'not put right',
}
