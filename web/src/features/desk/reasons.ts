import type { SheetView } from './api'

type Row = SheetView['rows'][number]
type Cell = Row['cells'][number]

const WORDS: Record<string, string> = { EMPTY: 'empty', WARNED: 'to look at', FAILED: 'failed' }

/** A reason why cells are odd, and how many are for it. */
export interface Reason {
  words: string
  cells: number
}

/** What is odd about a cell, without the value it is about; empty if nothing is. */
export function reasonOf(cell: Cell): string {
  if (cell.odd === 'NO') return ''
  if (cell.odd === 'EMPTY') return WORDS.EMPTY!
  // Cells that differ only in the value they speak of have one reason.
  const why = cell.why.replace(/“[^”]*”/g, '“…”').replace(/\d+/g, '…')
  const word = WORDS[cell.odd]
  return word ? `${word}: ${why}` : why
}

/** The reasons of all odd cells, the most frequent first. */
export function reasonsOf(rows: Row[]): Reason[] {
  const counts = new Map<string, number>()
  for (const row of rows) {
    for (const cell of row.cells) {
      const reason = reasonOf(cell)
      if (reason) counts.set(reason, (counts.get(reason) ?? 0) + 1)
    }
  }
  return [...counts].map(([words, cells]) => ({ words, cells })).sort((a, b) => b.cells - a.cells)
}

/** Whether the draft makes something else of an event than the live version does. */
export const differs = (row: Row) =>
  row.liveVerdict != null || row.cells.some((cell) => cell.live != null)
