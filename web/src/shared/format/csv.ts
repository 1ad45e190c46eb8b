/** Lines as CSV (RFC 4180): every cell in quotes, lines ended by CRLF. */
export function csvOf(head: string[], lines: string[][]): string {
  const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`
  return [head, ...lines].map((line) => line.map(quoted).join(',')).join('\r\n') + '\r\n'
}

/**
 * Cells as they are pasted from a sheet or stand in a file: parted by tabs, or by the commas or
 * semicolons of CSV, whose quotes may hold either and line ends.
 */
export function cellsOf(text: string): string[][] {
  const between = text.includes('\t') ? '\t' : firstOutside(text)
  const lines: string[][] = []
  let line: string[] = []
  let cell = ''
  let quoted = false
  const endCell = () => {
    line.push(cell)
    cell = ''
  }
  for (let i = 0; i < text.length; i++) {
    const sign = text[i]!
    if (quoted) {
      if (sign !== '"') cell += sign
      else if (text[i + 1] === '"') cell += text[(i += 1)]
      else quoted = false
    } else if (sign === '"' && cell === '') quoted = true
    else if (sign === between) endCell()
    else if (sign === '\n' || sign === '\r') {
      if (sign === '\r' && text[i + 1] === '\n') i += 1
      endCell()
      lines.push(line)
      line = []
    } else cell += sign
  }
  if (cell !== '' || line.length) {
    endCell()
    lines.push(line)
  }
  return lines.filter((one) => one.length > 1 || one[0] !== '')
}

/** The sign between the cells of the first line: a comma, unless semicolons stand there alone. */
function firstOutside(text: string): string {
  const line = text.split('\n', 1)[0]!.replaceAll(/"[^"]*"/g, '')
  return line.includes(';') && !line.includes(',') ? ';' : ','
}
