/** A sheet of cells as it is edited: every cell the text it is written as. */
export interface Sheet {
  keys: string[]
  values: { name: string; type: string }[]
  rows: string[][]
}

export const columnsOf = (sheet: Sheet) => [...sheet.keys, ...sheet.values.map((one) => one.name)]
export const widthOf = (sheet: Sheet) => sheet.keys.length + sheet.values.length

export const emptyRow = (sheet: Sheet) => Array<string>(widthOf(sheet)).fill('')

export function withCell(sheet: Sheet, row: number, column: number, text: string): Sheet {
  const rows = sheet.rows.map((old, i) =>
    i === row ? old.map((was, k) => (k === column ? text : was)) : old,
  )
  return { ...sheet, rows }
}

/** Puts pasted cells in from a place on; rows that are missing are added, what is too wide is not. */
export function pasted(sheet: Sheet, row: number, column: number, cells: string[][]): Sheet {
  const rows = [...sheet.rows]
  cells.forEach((line, i) => {
    const old = rows[row + i] ?? emptyRow(sheet)
    rows[row + i] = old.map((was, k) => line[k - column] ?? was)
  })
  return { ...sheet, rows }
}

/**
 * The rows of a file in place of the sheet's own: a first line that names columns says which is
 * which; without one the cells stand in the order of the columns.
 */
export function filled(sheet: Sheet, cells: string[][]): Sheet {
  const columns = columnsOf(sheet)
  const head = cells[0] ?? []
  const named = head.some((cell) => columns.includes(cell.trim()))
  const places = named
    ? columns.map((column) => head.findIndex((one) => one.trim() === column))
    : columns.map((_, i) => i)
  const lines = named ? cells.slice(1) : cells
  return {
    ...sheet,
    rows: lines.map((line) => places.map((place) => (place < 0 ? '' : (line[place] ?? '')))),
  }
}

export function withColumn(sheet: Sheet, name: string, type: string): Sheet {
  return {
    ...sheet,
    values: [...sheet.values, { name, type }],
    rows: sheet.rows.map((row) => [...row, '']),
  }
}

export function withoutColumn(sheet: Sheet, column: number): Sheet {
  const rest = <T>(list: T[], from: number) => list.filter((_, i) => i + from !== column)
  return {
    keys: rest(sheet.keys, 0),
    values: rest(sheet.values, sheet.keys.length),
    rows: sheet.rows.map((row) => row.filter((_, i) => i !== column)),
  }
}

export function renamed(sheet: Sheet, column: number, name: string): Sheet {
  return {
    ...sheet,
    keys: sheet.keys.map((old, i) => (i === column ? name : old)),
    values: sheet.values.map((old, i) =>
      i + sheet.keys.length === column ? { ...old, name } : old,
    ),
  }
}

export function withType(sheet: Sheet, column: number, type: string): Sheet {
  return {
    ...sheet,
    values: sheet.values.map((old, i) =>
      i + sheet.keys.length === column ? { ...old, type } : old,
    ),
  }
}

/** Rows without a sign in any cell say nothing and are not kept. */
export const told = (sheet: Sheet) => sheet.rows.filter((row) => row.some((cell) => cell.trim()))
