import { isGroup, withKey, type Group, type Tree } from '@/shared/tree'

/** By what the places are named that a bridge hears. */
export type How = 'one' | 'named' | 'all' | 'table'

/** What a document says of the places that its bridge hears. */
export interface Said {
  how: How
  of: string
  ids: string[]
  leftOut: string[]
  table: string
  column: string
  /** The column that names where each place's tasks go; empty where all go to one place. */
  take: string
}

const texts = (tree: Tree | undefined) =>
  Array.isArray(tree) ? tree.map(String) : typeof tree === 'string' && tree ? [tree] : []

export function said(doc: Group): Said {
  const from = isGroup(doc.from) ? doc.from : {}
  const places = isGroup(from.places) ? from.places : null
  const to = isGroup(doc.to) ? doc.to : {}
  const how: How = !places ? 'one' : 'table' in places ? 'table' : 'all' in places ? 'all' : 'named'
  return {
    how,
    of: String(places?.of ?? ''),
    ids: texts(places?.[how === 'all' ? 'all' : 'named']),
    leftOut: texts(places?.['left-out']),
    table: String(places?.table ?? ''),
    column: String(places?.column ?? ''),
    take: isGroup(to.collection) ? String(to.collection.take ?? '') : '',
  }
}

const PLACE_ID = 'place/id'

/** The id under which a place's collection is known; what no id should hold is percent-encoded. */
export const collectionOf = (of: string, id: string) =>
  of ? `${of}:${encodeURIComponent(id)}` : id

/** The group of many places that a collection is one of; empty if of none. */
export const groupOf = (collection: string) =>
  collection.indexOf(':') > 0 ? collection.slice(0, collection.indexOf(':')) : ''

/**
 * The document with other places: the match key tells them apart, and a lookup at the place that
 * the event came from stays one.
 *
 * @param first the collection that it begins at while it hears one
 * @param target the collection that it leads to while that is one
 */
export function withPlaces(doc: Group, next: Said, first: string, target: string): Group {
  const from = isGroup(doc.from) ? doc.from : {}
  const system = String(from.system ?? '')
  const many = next.how !== 'one'
  const match = texts(doc.match).filter((part) => part !== PLACE_ID)
  const changed: Group = {
    ...doc,
    from: {
      system,
      ...(many ? { places: written(next) } : { collection: first }),
      ...Object.fromEntries(
        Object.entries(from).filter(([key]) => !['system', 'places', 'collection'].includes(key)),
      ),
    },
    match: many ? [PLACE_ID, ...match] : match,
  }
  if (isGroup(doc.to)) changed.to = to(doc.to, next, target)
  if (isGroup(doc.lookups)) {
    changed.lookups = lookups(doc.lookups, `${system}/${first}`, many)
  }
  return changed
}

function written(next: Said): Group {
  const places: Group = next.of ? { of: next.of } : {}
  if (next.how === 'table') {
    places.table = next.table
    if (next.column) places.column = next.column
  } else {
    places[next.how] = next.ids
  }
  if (next.how !== 'named' && next.leftOut.length) places['left-out'] = next.leftOut
  return places
}

function to(target: Group, next: Said, collection: string): Group {
  if (next.how !== 'table' || !next.take) {
    return isGroup(target.collection) ? withKey(target, 'collection', collection) : target
  }
  const of = groupOf(collection)
  return withKey(target, 'collection', of ? { of, take: next.take } : { take: next.take })
}

function lookups(all: Group, here: string, many: boolean): Group {
  return Object.fromEntries(
    Object.entries(all).map(([name, one]) => [
      name,
      isGroup(one) && one.in === (many ? here : 'place')
        ? { ...one, in: many ? 'place' : here }
        : one,
    ]),
  )
}
