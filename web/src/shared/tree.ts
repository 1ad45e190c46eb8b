/** A bridge document as the desk edits it: every scalar is the text it is written as. */
export type Tree = string | Tree[] | { [key: string]: Tree }
export type Group = { [key: string]: Tree }

export const isGroup = (tree: Tree | undefined): tree is Group =>
  typeof tree === 'object' && !Array.isArray(tree)

/** A group with one key set anew at its end, or without it. */
export function withKey(tree: Tree | undefined, key: string, value: Tree | undefined): Group {
  const group = isGroup(tree) ? tree : {}
  const rest = Object.fromEntries(Object.entries(group).filter(([name]) => name !== key))
  return value === undefined ? rest : { ...rest, [key]: value }
}
