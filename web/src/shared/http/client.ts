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

/** Calls the API; what is no success is thrown with the problem's own words. */
async function call<T>(method: string, path: string): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, { method, headers: { Accept: 'application/json' } })
  } catch {
    throw new ProblemError(
      'The application does not answer. What was kept is safe; try again when it is back.',
      0,
    )
  }
  if (!response.ok) {
    throw new ProblemError(await problemText(response), response.status)
  }
  return (await response.json()) as T
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
export const post = <T>(path: string) => call<T>('POST', path)
