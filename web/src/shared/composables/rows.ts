/** Rows of a table that each lead somewhere: the first link of a row is where the row leads. */

function rowOf(target: EventTarget | null): HTMLTableRowElement | null {
  return target instanceof Element ? target.closest('tbody tr') : null
}

function linkOf(row: Element | null | undefined): HTMLAnchorElement | null {
  return row?.querySelector('a') ?? null
}

/** A click anywhere in a row follows its link; selecting text and other controls stay as they are. */
export function openRow(event: MouseEvent) {
  const target = event.target
  if (!(target instanceof Element) || target.closest('a, button, input, select, label')) return
  if (window.getSelection()?.toString()) return
  const link = linkOf(rowOf(target))
  if (!link) return
  // As the browser would follow the link itself: in place, or beside it with Control or Command.
  link.dispatchEvent(
    new MouseEvent('click', {
      bubbles: true,
      cancelable: true,
      ctrlKey: event.ctrlKey,
      metaKey: event.metaKey,
      shiftKey: event.shiftKey,
    }),
  )
}

/**
 * Up and down go from row to row, Home and End to the first and the last; Enter follows the link.
 * What leads nowhere, such as the heading of a group, is passed over.
 */
export function walkRows(event: KeyboardEvent) {
  const row = rowOf(event.target)
  if (!row || event.altKey || event.ctrlKey || event.metaKey) return
  const rows = [...(row.closest('table')?.querySelectorAll('tbody tr') ?? [])].filter(linkOf)
  const at = rows.indexOf(row)
  const to: Record<string, Element | undefined> = {
    ArrowDown: rows[at + 1],
    ArrowUp: rows[at - 1],
    Home: rows[0],
    End: rows.at(-1),
  }
  if (!(event.key in to)) return
  event.preventDefault()
  linkOf(to[event.key])?.focus()
}
