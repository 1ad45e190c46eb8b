// Fills a held bridge with 1,000 events of 20 fields and times the desk over HTTP.
import { createHmac, randomUUID } from 'node:crypto'

const app = process.argv[2]
const key = Buffer.from(process.env.KEY, 'base64')
const EVENTS = 1000
const ROUNDS = 15

async function call(method, path, body, headers = {}) {
  const response = await fetch(app + path, {
    method,
    headers: { 'Content-Type': 'application/json', Origin: app, ...headers },
    body: typeof body === 'string' || body === undefined ? body : JSON.stringify(body),
  })
  const text = await response.text()
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${text}`)
  return text === '' ? undefined : JSON.parse(text)
}

async function started() {
  for (let i = 0; i < 240; i++) {
    try {
      return await call('GET', '/api/session')
    } catch (notYet) {
      if (i === 239) throw notYet
      await new Promise((go) => setTimeout(go, 250))
    }
  }
}

function show(i) {
  const day = (at) => `${1 + (at % 28)} ${['March', 'May', 'July'][at % 3]} 2027`
  return {
    id: `s-${i}`, type: 'show.created', title: ` Show ${i} `, opens: day(i), closes: day(i + 9),
    due: i % 50 ? day(i + 3) : 'soon', priority: String(i % 11), budget: String(i * 100), rooms: '3',
    guests: String(i % 400), phone: `+351 ${i}`, mail: ` A${i}@Mail.example`, place: `hall ${i % 50}`,
    wing: 'north', floor: String(i % 4), notes: `Note ${i}`, tags: 'a,b,c', code: `c${i}`,
    link: `https://shows.example/${i}`,
  }
}

async function send(i) {
  const body = JSON.stringify(show(i))
  const id = randomUUID()
  const time = String(Math.floor(Date.now() / 1000))
  const mark = createHmac('sha256', key).update(`${id}.${time}.${body}`).digest('base64')
  await call('POST', '/hooks/field-book/shows', body, {
    'webhook-id': id, 'webhook-timestamp': time, 'webhook-signature': `v1,${mark}`,
  })
}

async function times(act, rounds = ROUNDS) {
  const taken = []
  for (let i = 0; i < rounds; i++) {
    const began = performance.now()
    await act()
    taken.push(performance.now() - began)
  }
  return taken.slice(5).sort((a, b) => a - b)
}
const line = (what, t) =>
  console.log(`${what.padEnd(58)} ${t[0].toFixed(1)} ${t[t.length >> 1].toFixed(1)} ${t.at(-1).toFixed(1)} ms`)

await started()
await call('PUT', '/api/bridges/shows/hold', { because: 'Measured' })
for (let i = 0; i < EVENTS; i += 20) {
  await Promise.all(Array.from({ length: 20 }, (_, k) => send(i + k)))
}
const draft = JSON.parse((await call('GET', '/api/desk/drafts/shows')).document)
draft.fields.notes = { text: 'Changed: {/notes}' }
const wish = { document: JSON.stringify(draft), revision: 0 }

let sheet
const inside = []
const first = performance.now()
await call('POST', '/api/desk/drafts/shows/proof', wish)
console.log(`first sheet after the start: ${(performance.now() - first).toFixed(0)} ms`)
const whole = await times(async () => {
  sheet = await call('POST', '/api/desk/drafts/shows/proof', wish)
  inside.push(sheet.micros / 1000)
})
if (sheet.rows.length !== EVENTS || sheet.columns.length !== 20) {
  throw new Error(`the sheet has ${sheet.rows.length} rows of ${sheet.columns.length} fields`)
}
const text = JSON.stringify(sheet)
const yardstick = await times(() => JSON.parse(JSON.stringify(JSON.parse(text))))
const trial = await times(() => call('POST', '/api/desk/drafts/shows/trial?sample=&fresh=false', wish), 60)
console.log(`least, median, most`)
line('sheet of 1,000 events x 20 fields, computed twice, server', inside.slice(5).sort((a, b) => a - b))
line('the same until its answer is read', whole)
line('one key typed: 40 events decided anew, answer read', trial)
line(`yardstick: its ${(text.length / 1e6).toFixed(1)} MB of JSON read, written and read`, yardstick)
console.log(`server / yardstick ${(inside.slice(5).sort((a, b) => a - b)[5] / yardstick[5]).toFixed(2)}`)
