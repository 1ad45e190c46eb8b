import { vi } from 'vitest'
import type {
  ArrivingGroup,
  LanguageView,
  LeavingField,
  SampleView,
  TrialView,
} from '@/features/desk/api'

/** Small pieces of what the desk is told, for specs; each can be changed in part. */

// jsdom has the dialog element without its methods.
HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
  this.open = true
}
HTMLDialogElement.prototype.close ??= function (this: HTMLDialogElement) {
  this.open = false
  this.dispatchEvent(new Event('close'))
}
Element.prototype.scrollIntoView ??= vi.fn()

type ArrivingField = ArrivingGroup['fields'][number]

export const arrivingField = (
  address: string,
  part: Partial<ArrivingField> = {},
): ArrivingField => ({
  address,
  name: address.split('/').at(-1)!,
  type: 'text',
  value: '',
  filled: 1,
  of: 1,
  items: [],
  others: [],
  alike: [],
  ...part,
})

export const arriving: ArrivingGroup[] = [
  {
    title: 'comes with the event',
    fields: [arrivingField('/submission', { value: 'vd-1', filled: 3, of: 3 })],
  },
  {
    title: 'looked up: report of Visitor Desk',
    fields: [
      arrivingField('report/place', { value: 'Palm walk', filled: 2, of: 3 }),
      arrivingField('report/danger', { name: 'how dangerous', value: '4', others: ['9'] }),
      arrivingField('report/guests', { type: 'number', value: '12' }),
    ],
  },
]

export const leavingField = (key: string, part: Partial<LeavingField> = {}): LeavingField => ({
  key,
  name: key[0]!.toUpperCase() + key.slice(1),
  type: 'text',
  required: false,
  ruled: true,
  names: {},
  start: '',
  steps: [],
  value: '',
  shown: '',
  problem: '',
  warnings: [],
  ...part,
})

const option = (name: string, type: string, required = false, words: string[] = []) => ({
  name,
  type,
  required,
  words,
  about: `what ${name} is`,
})

export const language = {
  steps: [
    {
      name: 'trim',
      summary: 'Without white space around it.',
      bare: false,
      testing: false,
      options: [],
    },
    {
      name: 'case',
      summary: 'In capitals or small letters.',
      bare: true,
      testing: false,
      options: [option('to', 'words', true, ['upper', 'lower'])],
    },
    {
      name: 'look-up',
      summary: 'Looks the value up in a reference table.',
      bare: false,
      testing: false,
      options: [option('table', 'table', true), option('take', 'text')],
    },
    {
      name: 'bands',
      summary: 'In bands.',
      bare: true,
      testing: false,
      options: [option('bands', 'bands', true)],
    },
    { name: 'keep-where', summary: 'Keeps items.', bare: false, testing: true, options: [] },
  ],
  operators: ['equal', 'is', 'at-least', 'not'],
  tables: ['crews', 'wings'],
  calendars: ['garden'],
} as unknown as LanguageView

export const sample = (id: string, part: Partial<SampleView> = {}): SampleView =>
  ({
    id,
    origin: 'RECEIVED',
    kind: 'created',
    record: `vd-${id}`,
    time: '2026-11-24T10:00:00Z',
    verdict: 'create',
    title: `Report ${id}`,
    key: `vd-${id}`,
    ...part,
  }) as SampleView

export const trialView = (part: Partial<TrialView> = {}): TrialView =>
  ({
    samples: [sample('1')],
    inView: 0,
    sourceProblem: '',
    verdict: 'create',
    because: [],
    matchKey: 'vd-1',
    arriving,
    lookups: [],
    tests: [],
    values: [],
    leaving: [],
    then: [],
    problems: [],
    remarks: [],
    unknownKeys: [],
    ...part,
  }) as unknown as TrialView

/** Answers each request by its method and the end of its path; anything else fails the spec. */
export function serve(answers: Record<string, unknown>) {
  const asked: { key: string; body: unknown }[] = []
  vi.stubGlobal('fetch', (path: string, init: { method: string; body?: string }) => {
    const key = Object.keys(answers).find((one) => {
      const [method, at] = one.split(' ')
      return init.method === method && path.includes(at!)
    })
    if (!key) throw new Error(`nothing answers ${init.method} ${path}`)
    let body: unknown = init.body
    try {
      body = init.body === undefined ? undefined : JSON.parse(init.body)
    } catch {
      // A text of another media type stays as it is.
    }
    asked.push({ key, body })
    const answer = answers[key]
    const refused = answer instanceof Error
    return Promise.resolve(
      new Response(
        refused
          ? JSON.stringify({ detail: answer.message })
          : answer === undefined
            ? null
            : JSON.stringify(answer),
        { status: refused ? Number(answer.name) || 422 : answer === undefined ? 204 : 200 },
      ),
    )
  })
  return asked
}

/** A refusal of the server with its status. */
export function refusal(detail: string, status = 422): Error {
  const error = new Error(detail)
  error.name = String(status)
  return error
}
