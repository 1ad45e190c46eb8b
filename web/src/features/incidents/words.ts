import { counted } from '@/shared/format/words'
import type { FailureGroup, Incident } from './api'

const DOING: Record<string, string> = {
  CREATE: 'making a task',
  CHANGE: 'changing a task',
  REMOVE: 'taking a task away',
  MESSAGE: 'sending a message',
}

/** What was being done when it failed. */
export function doing(group: FailureGroup): string {
  return DOING[group.effect] ?? 'reading and deciding'
}

/** What waits because of an incident, and where. */
export function waitsWords(incident: Incident): string {
  const where = placesWords(incident)
  if (incident.waiting === 0) {
    return incident.state === 'CLOSED'
      ? where
      : `nothing waits just now${where ? `, ${where}` : ''}`
  }
  const verb = incident.waiting === 1 ? 'waits' : 'wait'
  const what = `${counted(incident.waiting, 'event')} ${verb}`
  return where ? `${what}, ${where}` : what
}

function placesWords(incident: Incident): string {
  const names = incident.bridges.map((bridge) => bridge.name)
  // What a bridge that holds itself is called stands in the headline.
  if (names.length === 0 || incident.heldBridge) return ''
  if (names.length < 3) return `at ${names.join(' and ')}`
  return `at ${names[0]} and ${names.length - 1} other bridges`
}
