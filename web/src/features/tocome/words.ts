import type { Entry } from './api'

/** How a time stands, in a word or two; nothing where it simply came or will come. */
export const STATES: Record<Entry['state'], string> = {
  TO_COME: '',
  CAME: 'came',
  WAITS: 'tried again',
  HELD: 'waits',
  RUN: 'run by hand',
  PASSED_BY: 'nothing will be made',
  FAILS: 'would fail',
  MADE_UP_FOR: 'made up for',
  MISSED: 'missed',
}
