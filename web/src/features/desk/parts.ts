import type { LeavingField } from './api'
import type { Part } from './shelf'
import { isGroup, ruleGroup, stepsOf, withSteps, type Group, type Tree } from './tree'

/** Parts of bridges that are put into another one. */

/** What people call the sorts of parts. */
export const SORTS: Record<Part['kind'], string> = {
  rule: 'the rule',
  steps: 'the steps',
  condition: 'the condition',
  lookup: 'the lookup',
  then: 'what comes then:',
}

/** The fields that a part can go into; none if it goes in by itself. */
export function placesFor(part: Part, doc: Group, leaving: LeavingField[]): LeavingField[] {
  if (part.kind === 'rule') return leaving
  if (part.kind !== 'steps') return []
  const rules = isGroup(doc.fields) ? doc.fields : {}
  return leaving.filter((field) => field.key in rules)
}

/** The field that is most likely meant: the one of the same name, else the first without a rule. */
export function likeliest(part: Part, places: LeavingField[]): string {
  const same = places.find((field) => field.name === part.name || field.key === part.name)
  return (same ?? places.find((field) => !field.ruled) ?? places[0])?.key ?? ''
}

/** The document with the part in it; what does not fit there is named when it is compiled. */
export function put(part: Part, doc: Group, field: string): Group {
  const tree = part.tree as Tree
  const rules = isGroup(doc.fields) ? doc.fields : {}
  switch (part.kind) {
    case 'rule':
      return { ...doc, fields: { ...rules, [field]: tree } }
    case 'steps': {
      const rule = ruleGroup(rules[field])
      const steps = [...stepsOf(rule), ...(Array.isArray(tree) ? tree : [tree])]
      return { ...doc, fields: { ...rules, [field]: withSteps(rule, steps) } }
    }
    case 'condition':
      return { ...doc, when: both(doc.when, tree) }
    case 'lookup':
      return named(doc, 'lookups', part.name, tree)
    case 'then':
      return named(doc, 'then', part.name, tree)
  }
}

/** One condition and another: in one list, where they are lists of what must all hold. */
function both(old: Tree | undefined, more: Tree): Tree {
  if (old === undefined) return more
  const parts = (when: Tree): Tree[] =>
    isGroup(when) && Object.keys(when).join() === 'all' && Array.isArray(when.all)
      ? when.all
      : [when]
  return { all: [...parts(old), ...parts(more)] }
}

/** A group of the document with one more in it, under a name that is not taken. */
function named(doc: Group, key: string, name: string, tree: Tree): Group {
  const group = isGroup(doc[key]) ? doc[key] : {}
  let free = name
  for (let i = 2; free in group; i++) free = `${name}-${i}`
  return { ...doc, [key]: { ...group, [free]: tree } }
}
