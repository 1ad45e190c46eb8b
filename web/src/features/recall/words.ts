import { counted } from '@/shared/format/words'
import type { Recall, RecallCounts, RecallRecord } from './api'

export const STATES: Record<Recall['state'], string> = {
  LISTING: 'being listed',
  LISTED: 'listed, nothing taken back',
  RUNNING: 'under way',
  STOPPED: 'stopped',
  ENDED: 'ended',
  MAKING_AGAIN: 'being made again',
  MADE_AGAIN: 'made again',
}

/** The bridges whose work it is: `“A” and “B”` */
export function ofWhom(recall: Recall): string {
  const names = recall.bridges.map((bridge) => `“${bridge.name}”`)
  return names.length < 2
    ? (names[0] ?? '')
    : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
}

/** How many were dealt with, and of how many. */
export function far(counts: RecallCounts): { done: number; all: number } {
  const done = counts.takenBack + counts.goneBefore + counts.stays + counts.failed
  return { done, all: done + counts.chosen + counts.underWay }
}

/** What came of it so far: `12 taken back, 1 could not be` */
export function came(counts: RecallCounts): string {
  const words = [`${counts.takenBack.toLocaleString('en')} taken back`]
  if (counts.goneBefore) words.push(`${counts.goneBefore} gone already`)
  if (counts.stays) words.push(`${counts.stays} left, as somebody changed them`)
  if (counts.failed) words.push(`${counts.failed} could not be taken back`)
  if (counts.leftOut) words.push(`${counts.leftOut} left out`)
  return words.join(', ')
}

/** What is known of a record before it goes, or became of it. */
export function stand(record: RecallRecord): string {
  switch (record.state) {
    case 'WAITING':
      if (record.looked === 'SAME') {
        return record.words || (record.way === 'PUT_BACK' ? 'as it was changed' : 'as it was made')
      }
      if (record.looked === null) return 'not looked at yet'
      return record.words || 'not known'
    case 'UNDER_WAY':
      return 'on its way'
    case 'TAKEN_BACK':
      return { CLOSE: 'closed', PUT_BACK: 'put back', TAKE_AWAY: 'taken away', NAME: '' }[
        record.way
      ]
    case 'GONE_BEFORE':
      return 'was gone already'
    case 'MADE_AGAIN':
      return 'sent again'
    default:
      return record.words
  }
}

export const records = (many: number) => counted(many, 'record')
