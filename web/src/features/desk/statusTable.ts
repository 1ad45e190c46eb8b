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

/** Whether a status has a line of its own in the document, not only as one of all others. */
export const isStated = (doc: Group, field: string, to: 'to-left' | 'to-right', status: string) =>
  status in groupOf(groupOf(groupOf(doc, 'fields'), field)[to], 'values')

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

/** The document with two statuses standing for each other these ways, and no other. */
export function withArrows(
  doc: Group,
  grid: StatusGrid,
  left: string,
  right: string,
  wanted: Arrows,
): Group {
  const now = arrowsOf(grid, left, right)
  let made = doc
  if (grid.left.goes && wanted.right !== now.right) {
    made = withStatus(made, grid.field, 'to-right', left, wanted.right ? right : undefined)
  }
  if (grid.right.goes && wanted.left !== now.left) {
    made = withStatus(made, grid.field, 'to-left', right, wanted.left ? left : undefined)
  }
  return made
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
