import { isGroup, type Group, type Tree } from '@/shared/tree'

export { isGroup, withKey, type Group, type Tree } from '@/shared/tree'

/** Where a rule starts from. */
export type SourceKind = 'value' | 'text' | 'texts' | 'always' | 'cases' | 'each'

const SOURCES: SourceKind[] = ['value', 'text', 'texts', 'always', 'cases', 'each']

/** A rule as a group; an address alone is a group with that value. */
export function ruleGroup(rule: Tree | undefined): Group {
  if (typeof rule === 'string') return { value: rule }
  return isGroup(rule) ? rule : { text: '' }
}

export function sourceKind(rule: Tree | undefined): SourceKind {
  const group = ruleGroup(rule)
  return SOURCES.find((kind) => kind in group) ?? 'text'
}

/** The rule with another source and the same steps. */
export function withSource(rule: Tree | undefined, source: Group): Group {
  const steps = ruleGroup(rule).steps
  return steps === undefined ? source : { ...source, steps }
}

export function stepsOf(rule: Tree | undefined): Tree[] {
  const steps = ruleGroup(rule).steps
  return Array.isArray(steps) ? steps : []
}

export function withSteps(rule: Tree | undefined, steps: Tree[]): Group {
  const rest: Group = {}
  for (const [key, value] of Object.entries(ruleGroup(rule))) {
    if (key !== 'steps') rest[key] = value
  }
  return steps.length ? { ...rest, steps } : rest
}

/** A step taken apart: its name, and its options by name. */
export interface StepParts {
  name: string
  options: Group
}

/**
 * @param bare the name of the option that may stand by itself, if the step has one
 */
export function stepParts(step: Tree, bare: (name: string) => string | undefined): StepParts {
  if (typeof step === 'string') return { name: step, options: {} }
  const [name, under] = isGroup(step) ? Object.entries(step)[0]! : ['', '']
  const first = bare(name)
  // Bands are a group under the step's own name; other groups are options.
  if (!isGroup(under) || first === 'bands') {
    return { name, options: first === undefined ? {} : { [first]: under } }
  }
  return { name, options: under }
}

export function stepOf(parts: StepParts, bare: string | undefined): Tree {
  const given = Object.entries(parts.options).filter(([, value]) => value !== '')
  if (given.length === 0) return parts.name
  if (given.length === 1 && given[0]![0] === bare) return { [parts.name]: given[0]![1] }
  return { [parts.name]: Object.fromEntries(given) }
}

/** The lines of a group as people type them, `8..10: 1`, and back. */
export const groupToLines = (group: Tree | undefined) =>
  isGroup(group)
    ? Object.entries(group)
        .map(([key, value]) => `${key}: ${String(value)}`)
        .join('\n')
    : ''

export function linesToGroup(lines: string): Group {
  const group: Group = {}
  for (const line of lines.split('\n')) {
    const colon = line.lastIndexOf(':')
    if (colon > 0) group[line.slice(0, colon).trim()] = line.slice(colon + 1).trim()
  }
  return group
}

/** A list with one item moved by some places; the same list if it cannot be. */
export function moved<T>(list: T[], from: number, by: number): T[] {
  const to = from + by
  if (to < 0 || to >= list.length) return list
  const copy = [...list]
  copy.splice(to, 0, ...copy.splice(from, 1))
  return copy
}

/** Whether a target field has no rule, or only the empty text that a new draft begins with. */
export function isOpen(rule: Tree | undefined): boolean {
  if (rule === undefined) return true
  return isGroup(rule) && Object.keys(rule).length === 1 && rule.text === ''
}

/** All texts of a tree. */
function texts(tree: Tree | undefined): string[] {
  if (tree === undefined) return []
  if (typeof tree === 'string') return [tree]
  return (Array.isArray(tree) ? tree : Object.values(tree)).flatMap(texts)
}

/** For each address, the target fields whose rules read it: as a whole value, or in a slot. */
export function usedIn(
  fields: Tree | undefined,
  addresses: string[],
  nameOf: (key: string) => string,
): Record<string, { key: string; name: string }[]> {
  const used: Record<string, { key: string; name: string }[]> = {}
  if (!isGroup(fields)) return used
  for (const [key, rule] of Object.entries(fields)) {
    const all = texts(rule)
    for (const address of addresses) {
      if (all.some((text) => text === address || text.includes(`{${address}}`))) {
        ;(used[address] ??= []).push({ key, name: nameOf(key) })
      }
    }
  }
  return used
}
