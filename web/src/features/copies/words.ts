import { counted } from '@/shared/format/words'
import type { Copy } from './api'

const GROUPS: Record<string, string> = {
  fields: 'field',
  lookups: 'lookup',
  values: 'value',
  then: 'then',
  set: 'set',
  between: '',
}

const WHOLE: Record<string, string> = {
  when: 'the condition',
  match: 'what is the same thing',
  purpose: 'the purpose',
  from: 'where its events come from',
  to: 'where its tasks go',
  ceiling: 'the ceiling',
  duplicates: 'what may be there twice',
}

/** A part of a bridge by its path in the document, as people call it. */
export function partName(path: string): string {
  const [top, ...rest] = path.split('/')
  if (top! in WHOLE) return WHOLE[top!]!
  const inner = rest.filter((key) => key !== 'fields' && key !== 'tasks').join(', ')
  return `${GROUPS[top!] ?? top} ${inner}`.trim()
}

/** How a copy stands to its original. */
export function standing(copy: Copy): string {
  const both = copy.both.length ? `${counted(copy.both.length, 'part')} changed in both` : ''
  const same = copy.own.length ? 'as the original but for its own' : 'as the original'
  if (!copy.follows) return both || same
  const takes = `${counted(copy.differences.length, 'part')} to take over`
  return both ? `${takes}, ${both}` : takes
}
