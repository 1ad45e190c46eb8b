import type { Row } from './api'
import { COLUMNS, columnOf, FACETS, NAME, plainOf, USUAL, valuesOf, type Column } from './columns'

/** What of the register is shown, and how; the same as the address says it. */
export interface View {
  text: string
  /** The value that is wanted of a column, by its key. */
  only: Record<string, string>
  sort: string
  down: boolean
  group: string
  columns: string[]
}

export type Query = Record<string, string>

const FACET_KEYS = FACETS.map((column) => column.key)

/** Reads an address; what it does not know it leaves out. */
export function viewOf(query: Query): View {
  const sort = (query.sort ?? '').replace(/^-/, '')
  const columns = (query.columns ?? '')
    .split(',')
    .filter((key) => key !== NAME.key && columnOf(key))
  return {
    text: query.q ?? '',
    only: Object.fromEntries(
      FACET_KEYS.filter((key) => query[key] !== undefined).map((key) => [key, query[key]!]),
    ),
    sort: columnOf(sort) ? sort : NAME.key,
    down: (query.sort ?? '').startsWith('-') && Boolean(columnOf(sort)),
    group: FACET_KEYS.includes(query.group ?? '') ? query.group! : '',
    columns: columns.length ? columns : USUAL,
  }
}

/** The address of a view; what is as usual is not said. */
export function queryOf(view: View): Query {
  const sort = (view.down ? '-' : '') + view.sort
  return {
    ...(view.text ? { q: view.text } : {}),
    ...view.only,
    ...(sort === NAME.key ? {} : { sort }),
    ...(view.group ? { group: view.group } : {}),
    ...(view.columns.join() === USUAL.join() ? {} : { columns: view.columns.join() }),
  }
}

/** The columns of a view, in the order in which they are known. */
export const columnsOf = (view: View): Column[] => [
  NAME,
  ...COLUMNS.filter((column) => view.columns.includes(column.key)),
]

export interface Group {
  name: string
  rows: Row[]
}

/** The rows that a view shows, sorted, by group; a row that has several values is in each group. */
export function groupsOf(view: View, rows: Row[]): Group[] {
  const found = sorted(
    view,
    rows.filter((row) => isShown(view, row)),
  )
  const by = columnOf(view.group)
  if (!by) return [{ name: '', rows: found }]
  const groups = new Map<string, Row[]>()
  for (const row of found) {
    for (const value of valuesOf(by, row)) groups.set(value, [...(groups.get(value) ?? []), row])
  }
  // What nobody said stands last.
  return [...groups]
    .map(([name, those]) => ({ name, rows: those }))
    .sort((a, b) => Number(!a.name) - Number(!b.name) || a.name.localeCompare(b.name))
}

function isShown(view: View, row: Row): boolean {
  const words = view.text.toLowerCase().split(/\s+/).filter(Boolean)
  const all = [row.id, row.name, row.purpose, ...FACETS.flatMap((one) => valuesOf(one, row))]
    .join(' ')
    .toLowerCase()
  return (
    words.every((word) => all.includes(word)) &&
    Object.entries(view.only).every(([key, value]) => valuesOf(columnOf(key)!, row).includes(value))
  )
}

function sorted(view: View, rows: Row[]): Row[] {
  const column = columnOf(view.sort)!
  const by = column.sortedBy ?? ((row: Row) => plainOf(column, row))
  const turn = view.down ? -1 : 1
  return [...rows].sort((a, b) => turn * compare(by(a), by(b)) || compare(a.name, b.name))
}

function compare(a: number | string, b: number | string): number {
  return typeof a === 'number' && typeof b === 'number'
    ? a - b
    : String(a).localeCompare(String(b), 'en', { sensitivity: 'base' })
}

/**
 * The rows as CSV (RFC 4180), moments as RFC 3339 writes them. A cell that a program for sheets would take for a formula is written
 * behind an apostrophe.
 */
export function csvOf(view: View, rows: Row[]): string {
  const columns = columnsOf(view)
  const lines = [
    ['id', ...columns.map((column) => column.name)],
    ...rows.map((row) => [row.id, ...columns.map((column) => plainOf(column, row))]),
  ]
  return lines.map((line) => line.map(cell).join(',') + '\r\n').join('')
}

function cell(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) ? `'${text}` : text
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
}
