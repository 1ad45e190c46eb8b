import type { Hearing, Where } from './api'

/** Why there is a task, or none, in one sentence: what whoever asks wants to know first. */
export function answerOf(where: Where): string {
  const there = where.tasks.find((task) => task.now.state === 'THERE')
  if (there) return `Its task is there, at ${there.place}.`
  const gone = where.tasks.find((task) => task.now.state === 'NOT_THERE')
  if (gone) return `It had a task at ${gone.place}, which is not there any more.`
  const made = where.tasks.find((task) => task.task)
  if (made) return `It has a task at ${made.place}; whether that is there could not be asked.`
  if (!where.bridges.length) return 'No bridge at work hears of it.'
  const newest = newestOf(where.bridges)
  if (newest) return became(newest)
  if (where.source.state === 'NOT_THERE') return 'Its source does not have it.'
  if (where.source.state !== 'THERE') return 'Nothing was received of it.'
  return where.tells
    ? 'It is at its source, and its source never told of it.'
    : 'It is at its source, and was not found there so far.'
}

/** The bridge that failed, or else that had it last. */
function newestOf(bridges: Hearing[]): Hearing | undefined {
  const had = bridges.filter((bridge) => bridge.trace)
  return had.find((bridge) => bridge.verdict === 'FAILED') ?? had[0]
}

function became(bridge: Hearing): string {
  const why = bridge.reason ? `: ${bridge.reason.replace(/\.$/, '')}` : ''
  if (bridge.verdict === 'FAILED') return `It came to ${bridge.name} and failed${why}.`
  if (bridge.verdict === 'PASSED_BY') return `It came to ${bridge.name}, which passed it by${why}.`
  if (!bridge.verdict) {
    return bridge.held
      ? `It came to ${bridge.name}, which is held.`
      : `It came to ${bridge.name} and is under way.`
  }
  return `It came to ${bridge.name}, and there is no task of it now.`
}
