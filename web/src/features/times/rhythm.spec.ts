import { describe, expect, it } from 'vitest'
import { rhythmOf, ruleOf } from './rhythm'

const FRIDAY = '2026-11-27T06:00'

describe('a rule as choices', () => {
  it.each([
    'FREQ=HOURLY;INTERVAL=3',
    'FREQ=DAILY',
    'FREQ=DAILY;INTERVAL=10',
    'FREQ=WEEKLY;INTERVAL=4;BYDAY=FR',
    'FREQ=WEEKLY;BYDAY=MO,WE,SU',
    'FREQ=MONTHLY;BYMONTHDAY=15',
    'FREQ=MONTHLY;BYMONTHDAY=-1',
    'FREQ=MONTHLY;INTERVAL=2;BYDAY=-1FR',
    'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29',
  ])('is the same rule again: %s', (rule) => {
    expect(ruleOf(rhythmOf(rule, FRIDAY)!)).toBe(rule)
  })

  it.each([
    'FREQ=MINUTELY',
    'FREQ=DAILY;COUNT=4',
    'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
    'FREQ=MONTHLY;BYDAY=MO,TU;BYSETPOS=-1',
    'FREQ=MONTHLY;BYMONTHDAY=1,15',
    'FREQ=MONTHLY;BYMONTHDAY=-2',
    'FREQ=MONTHLY;BYDAY=5FR',
    'FREQ=WEEKLY;BYDAY=1FR',
    'FREQ=YEARLY;BYMONTH=1,7;BYMONTHDAY=1',
    'FREQ=YEARLY;BYWEEKNO=53',
    'every Friday',
  ])('is left as it is where it says more: %s', (rule) => {
    expect(rhythmOf(rule, FRIDAY)).toBeNull()
  })

  it('takes what a rule does not say from the day on which it begins', () => {
    expect(ruleOf(rhythmOf('FREQ=WEEKLY', FRIDAY)!)).toBe('FREQ=WEEKLY;BYDAY=FR')
    expect(ruleOf(rhythmOf('FREQ=MONTHLY', FRIDAY)!)).toBe('FREQ=MONTHLY;BYMONTHDAY=27')
    expect(ruleOf(rhythmOf('FREQ=YEARLY', FRIDAY)!)).toBe('FREQ=YEARLY;BYMONTH=11;BYMONTHDAY=27')
  })
})
