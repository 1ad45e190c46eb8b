import { dayAndTime, dayText, typed } from '@/shared/format/time'
import type { Row } from './api'

export const JUDGED: Record<NonNullable<Row['judged']>, string> = {
  SOUND: 'sound',
  NEEDS_WORK: 'needs work',
  BEING_TESTED: 'being tested',
  NOT_WORKING: 'not working',
}
export const MEASURED: Record<Row['measured'], string> = {
  SOUND: 'sound',
  NEEDS_WORK: 'needs work',
  NOT_WORKING: 'not working',
  NOTHING_CAME: 'nothing came',
}
export const CONDITIONS: Record<Row['condition'], string> = {
  LIVE: 'live',
  HELD: 'held',
  BROKEN: 'cannot be used',
}

/** A column of the register. */
export interface Column {
  key: string
  name: string
  /** What stands in the cell, as text. */
  text: (row: Row, now: Date, zone: string) => string
  /** What stands in a file, where that is not its text: a file is read on another day. */
  inFile?: (row: Row) => string
  /** What it is sorted by, where that is not its text. */
  sortedBy?: (row: Row) => number | string
  /** Rows can be filtered and grouped by it: what the choice for all of them is called. */
  all?: string
  /** What it is grouped by, where that is not its name. */
  by?: string
  /** All values of a row, where it may have several. */
  values?: (row: Row) => string[]
  number?: boolean
}

const text = (key: string, name: string, of: (row: Row) => string, all?: string): Column => ({
  key,
  name,
  text: of,
  ...(all ? { all } : {}),
})
const number = (key: string, name: string, of: (row: Row) => number): Column => ({
  key,
  name,
  text: (row) => String(of(row)),
  sortedBy: of,
  number: true,
})
const moment = (key: string, name: string, of: (row: Row) => string | null): Column => ({
  key,
  name,
  text: (row, now, zone) => (of(row) ? dayAndTime(of(row)!, now, zone) : ''),
  inFile: (row) => of(row) ?? '',
  sortedBy: (row) => (of(row) ? Date.parse(of(row)!) : 0),
  number: true,
})

/** `failed`, `due since 12 November 2026`, `due 4 December 2026` */
function testsOf(row: Row, now: Date, zone: string): string {
  if (row.testsFailed) return 'failed'
  if (!row.testDue) return row.tested ? 'never due again' : ''
  const come = row.testDue <= typed(now, zone).slice(0, 10)
  return `${come ? 'due since' : 'due'} ${dayText(row.testDue, 'UTC')}`
}

export const NAME = text('name', 'Bridge', (row) => row.name)

/** All but the name, which always stands first. */
export const COLUMNS: Column[] = [
  text('condition', 'Condition', (row) => CONDITIONS[row.condition], 'Every condition'),
  text('owner', 'Owner', (row) => row.owner, 'Every owner'),
  text('standIn', 'Stand-in', (row) => row.standIn, 'Every stand-in'),
  text('department', 'Department', (row) => row.department, 'Every department'),
  text('judged', 'Judged', (row) => (row.judged ? JUDGED[row.judged] : ''), 'However judged'),
  text('measured', 'Measured', (row) => MEASURED[row.measured], 'However measured'),
  { ...text('source', 'From', (row) => row.source, 'From everywhere'), by: 'source' },
  { ...text('target', 'To', (row) => row.target, 'To everywhere'), by: 'target' },
  {
    ...text('systems', 'Systems', (row) => row.systems.join(', '), 'Every system'),
    values: (row) => row.systems,
    by: 'system',
  },
  number('came', 'Came in a day', (row) => row.came),
  number('failed', 'Failed', (row) => row.failed),
  number('waiting', 'Waiting', (row) => row.waiting),
  moment('lastEvent', 'Last event', (row) => row.lastEvent),
  moment('since', 'Live since', (row) => row.since),
  {
    key: 'tests',
    name: 'Tests',
    text: testsOf,
    inFile: (row) => (row.testsFailed ? 'failed' : (row.testDue ?? (row.tested ? 'never' : ''))),
    // Failed ones first, then by the day on which they are due, and last what nobody tests.
    sortedBy: (row) =>
      row.testsFailed ? 0 : row.testDue ? Date.parse(row.testDue) : Number.MAX_SAFE_INTEGER,
  },
  number('version', 'Version', (row) => row.version),
  text('changedBy', 'Put to work by', (row) => row.changedBy, 'By everybody'),
]

export const USUAL = [
  'condition',
  'owner',
  'measured',
  'source',
  'target',
  'came',
  'failed',
  'waiting',
  'lastEvent',
]

export const columnOf = (key: string): Column | undefined =>
  key === NAME.key ? NAME : COLUMNS.find((column) => column.key === key)

/** What can be filtered and grouped by. */
export const FACETS = COLUMNS.filter((column) => column.all)

/** What of a row does not depend on when and where it is read. */
export const plainOf = (column: Column, row: Row): string =>
  column.inFile ? column.inFile(row) : column.text(row, new Date(0), 'UTC')

/** All values of a row in a column. */
export const valuesOf = (column: Column, row: Row): string[] =>
  column.values ? column.values(row) : [plainOf(column, row)]
