import type { StatusGrid } from './api'
import { isGroup, type Group, type Tree } from './tree'

/** Which way two statuses stand for each other. */
export type Arrows = { right: boolean; left: boolean }

const groupOf = (tree: Tree | undefined, key: string): Group => {
  const found = isGroup(tree) ? tree[key] : undefined
  return isGroup(found) ? found : {}
}

/** Which way two statuses stand for each other, all others of a side included. */
export const arrowsOf = (grid: StatusGrid, left: string, right: string): Arrows => ({
  right: grid.left.goes && grid.left.across[left] === right,
  left: grid.right.goes && grid.right.across[right] === left,
})

/** What the document itself says that a status becomes; nothing if it is only one of all others. */
const stated = (doc: Group, field: string, to: 'to-left' | 'to-right', status: string) =>
  groupOf(groupOf(groupOf(doc, 'fields'), field)[to], 'values')[status]

/** Whether a status has a line of its own in the document, not only as one of all others. */
export const isStated = (doc: Group, field: string, to: 'to-left' | 'to-right', status: string) =>
  stated(doc, field, to, status) !== undefined

/** The document with another status across for one of a side; without one if there is none. */
export function withStatus(
  doc: Group,
  field: string,
  to: 'to-left' | 'to-right',
  status: string,
  across: string | undefined,
): Group {
  const fields = groupOf(doc, 'fields')
  const rule = groupOf(fields, field)
  const way = groupOf(rule, to)
  const values = { ...groupOf(way, 'values') }
  if (across === undefined) delete values[status]
  else values[status] = across
  return {
    ...doc,
    fields: { ...fields, [field]: { ...rule, [to]: { ...way, values } } },
  }
}

/**
 * The document with two statuses standing for each other these ways, and no other. What stands
 * there now is read from the document, as the table may still be that of the key before.
 */
export function withArrows(
  doc: Group,
  grid: StatusGrid,
  left: string,
  right: string,
  wanted: Arrows,
): Group {
  const way = (
    made: Group,
    to: 'to-left' | 'to-right',
    status: string,
    across: string,
    is: boolean,
  ) => {
    const now = stated(made, grid.field, to, status) === across
    return now === is ? made : withStatus(made, grid.field, to, status, is ? across : undefined)
  }
  const there = grid.left.goes ? way(doc, 'to-right', left, right, wanted.right) : doc
  return grid.right.goes ? way(there, 'to-left', right, left, wanted.left) : there
}

/** What two statuses are to each other, as a sentence. */
export function meaning(grid: StatusGrid, left: string, right: string): string {
  const one = `“${nameOf(grid.left, left)}” in ${grid.left.of}`
  const other = `“${nameOf(grid.right, right)}” in ${grid.right.of}`
  const arrows = arrowsOf(grid, left, right)
  if (arrows.left && arrows.right) return `${one} becomes ${other}, and back`
  if (arrows.right) return `${one} becomes ${other}`
  if (arrows.left) return `${other} becomes ${one}`
  return `${one} and ${other} do not stand for each other`
}

export const nameOf = (side: StatusGrid['left'], status: string) =>
  side.statuses.find((one) => one.key === status)?.name ?? status
