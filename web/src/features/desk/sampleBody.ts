/** A field as a sample made by hand needs it. */
interface HandField {
  address: string
  type: string
}

/** The tokens of a JSON Pointer (RFC 6901 section 4). */
const tokens = (pointer: string) =>
  pointer
    .split('/')
    .slice(1)
    .map((token) => token.replaceAll('~1', '/').replaceAll('~0', '~'))

/** A value as JSON holds it: what is typed for a number, a flag or a list is one. */
function typedValue(type: string, text: string): unknown {
  if (type.startsWith('list of') || type === 'record') {
    try {
      return JSON.parse(text)
    } catch {
      return text.split(',').map((item) => item.trim())
    }
  }
  if (type === 'number' && text.trim() !== '' && !Number.isNaN(Number(text))) return Number(text)
  if (type === 'flag' && ['true', 'false'].includes(text)) return text === 'true'
  return text
}

/** A body with what was typed for each field at the field's own place; what is empty is left out. */
export function bodyFromFields(fields: HandField[], typed: Record<string, string>): string {
  const body: Record<string, unknown> = {}
  for (const field of fields) {
    const text = typed[field.address] ?? ''
    const path = tokens(field.address)
    if (text === '' || path.length === 0) continue
    let at = body
    for (const token of path.slice(0, -1)) {
      const inner = at[token]
      if (typeof inner !== 'object' || inner === null) at[token] = {}
      at = at[token] as Record<string, unknown>
    }
    at[path.at(-1)!] = typedValue(field.type, text)
  }
  return Object.keys(body).length ? JSON.stringify(body) : ''
}
