import type { components } from './schema'

export type Schemas = components['schemas']

/** What went wrong, in words for the screen. */
export class ProblemError extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message)
  }
}

/** What a browser sends while a page closes is bounded (Fetch standard: 64 KiB in all). */
const MOST_WHILE_CLOSING = 60_000

function small(body: string | Blob | undefined): boolean {
  if (body instanceof Blob) return body.size <= MOST_WHILE_CLOSING
  return body === undefined || new TextEncoder().encode(body).length <= MOST_WHILE_CLOSING
}

/** Calls the API; what is no success is thrown with the problem's own words. */
async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  type = 'application/json',
): Promise<T> {
  const isReady = typeof body === 'string' || body === undefined || body instanceof Blob
  const sent = isReady ? body : JSON.stringify(body)
  let response: Response
  try {
    response = await fetch(path, {
      method,
      headers: {
        Accept: 'application/json',
        ...(body === undefined ? {} : { 'Content-Type': type }),
      },
      body: sent,
      // What is sent while the page closes still arrives, as far as browsers allow it.
      keepalive: method === 'PUT' && small(sent),
    })
  } catch {
    throw new ProblemError(
      'The application does not answer. What was kept is safe; try again when it is back.',
      0,
    )
  }
  if (!response.ok) {
    throw new ProblemError(await problemText(response), response.status)
  }
  const text = await response.text()
  return (text === '' ? undefined : JSON.parse(text)) as T
}

async function problemText(response: Response): Promise<string> {
  try {
    const problem = (await response.json()) as { detail?: string; title?: string }
    return problem.detail ?? problem.title ?? `The answer was ${response.status}.`
  } catch {
    return `The answer was ${response.status}.`
  }
}

export const get = <T>(path: string) => call<T>('GET', path)
export const post = <T>(path: string, body?: unknown, type?: string) =>
  call<T>('POST', path, body, type)
export const put = <T>(path: string, body: unknown) => call<T>('PUT', path, body)
/** Sends a text of another media type; the answer is JSON all the same. */
export const putText = <T>(path: string, text: string, type: string) =>
  call<T>('PUT', path, text, type)
export const del = (path: string) => call<undefined>('DELETE', path)
