/** Documents to begin with where no OpenAPI description is, the places to fill left open. */
export interface Beginning {
  title: string
  about: string
  document: string
}

export const BEGINNINGS: Beginning[] = [
  {
    title: 'A mail account',
    about: 'Folders are followed by IMAP, letters sent by SMTP.',
    document: `system: post
name: Post
address: imaps://mail.garden.example
send-address: smtps://mail.garden.example
sign-in: { basic: { user: visits, secret: post-password } }
collections:
  mails:
    name: Mails
    folders: [INBOX]
    every: PT5M
  letters:
    name: Letters
    send: { from: "Garden <visits@garden.example>", keep-in: Sent }
`,
  },
  {
    title: 'A library of documents',
    about: 'Folders and their properties are read by WebDAV.',
    document: `system: library
name: Library
speaks: webdav
address: https://documents.garden.example/dav
sign-in: { basic: { user: reader, secret: library-password } }
collections:
  records:
    name: Records
    folder: /records/
`,
  },
  {
    title: 'A task list',
    about: 'Tasks of a calendar are made, changed and followed by CalDAV.',
    document: `system: rounds
name: Rounds
speaks: caldav
address: https://calendar.garden.example
sign-in: { basic: { user: gardener, secret: rounds-password } }
collections:
  tasks:
    name: Tasks
    calendar: /gardener/rounds/
    due: day
`,
  },
  {
    title: 'Files in a folder',
    about: 'CSV, NDJSON or iCalendar, dropped into a folder or on the systems page.',
    document: `system: market
name: Market
address: drop:market
collections:
  orders:
    name: Orders
    record: order
    files: "*.csv"
    reads: csv
    id: /number
    fields:
      /number: { name: number, type: text, required: true }
      /what: { name: what is ordered, type: text }
`,
  },
  {
    title: 'A system with JSON over HTTP',
    about: 'Its calls are described one by one.',
    document: `system: ledger
name: Ledger
address: https://ledger.garden.example
sign-in: { bearer: { secret: ledger-token } }
collections:
  jobs:
    name: Jobs
    record: job
    title: title
    fields:
      title: { name: Title, type: text, required: true }
    find:
      - { by: [id], call: "GET /jobs/{id}" }
    create:
      - { call: POST /jobs, fields: [title], key-header: Idempotency-Key }
`,
  },
]
