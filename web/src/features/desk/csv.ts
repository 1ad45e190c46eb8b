/** Lines as CSV (RFC 4180): every cell in quotes, lines ended by CRLF. */
export function csvOf(head: string[], lines: string[][]): string {
  const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`
  return [head, ...lines].map((line) => line.map(quoted).join(',')).join('\r\n') + '\r\n'
}
