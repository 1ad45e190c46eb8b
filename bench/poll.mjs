// A register of 100,000 people in pages of 500, and how fast it is followed.
import { createServer } from 'node:http'

const RECORDS = 100_000
const [what, one, two] = process.argv.slice(2)

function serve(port) {
  // Everyone is made as soon as somebody asks for the first time, so that all of them count.
  let made
  createServer((request, response) => {
    made ??= Date.now() + 1000
    const query = new URL(request.url, 'http://x').searchParams
    const from = Number(query.get('after') ?? 0)
    const since = Date.parse(query.get('changedSince') ?? 0)
    const items = []
    for (let i = from; i < Math.min(RECORDS, from + 500); i++) {
      const at = new Date(made + i).toISOString()
      if (made + i >= since) {
        items.push({ id: `p-${i}`, name: `Person ${i}`, town: `Town ${i % 97}`, createdAt: at, changedAt: at })
      }
    }
    const next = from + 500 < RECORDS ? String(from + 500) : undefined
    response.setHeader('Content-Type', 'application/json')
    response.end(JSON.stringify({ items, next }))
  }).listen(Number(port), '127.0.0.1')
}

const read = async (address) => (await fetch(address)).json()

async function plainly(register) {
  const began = performance.now()
  let after = ''
  let count = 0
  while (after !== undefined) {
    const page = await read(`${register}/people?limit=500${after && `&after=${after}`}`)
    count += page.items.length
    after = page.next
  }
  return { count, seconds: (performance.now() - began) / 1000 }
}

async function poll(app) {
  for (;;) {
    try {
      const [found] = await read(`${app}/api/polls`)
      if (found) return found
    } catch {
      // It is still starting.
    }
    await new Promise((go) => setTimeout(go, 100))
  }
}

async function measure(app, register) {
  await poll(app)
  const held = await fetch(`${app}/api/bridges/people/hold`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json', Origin: app },
    body: JSON.stringify({ because: 'Measured' }),
  })
  if (!held.ok) throw new Error(await held.text())
  const began = performance.now()
  for (;;) {
    const now = await poll(app)
    if (!now.reading && now.askedAt !== null) break
    if (now.problem) throw new Error(now.problem)
    await new Promise((go) => setTimeout(go, 50))
  }
  const seconds = (performance.now() - began) / 1000
  const kept = (await read(`${app}/api/watch`)).bridges.find((line) => line.id === 'people')
  if (kept.waiting !== RECORDS) throw new Error(`${kept.waiting} events were kept`)
  const yardstick = await plainly(register)
  console.log(`${RECORDS} records followed, each kept as an event with its trace: ${seconds.toFixed(1)} s, ` +
    `${Math.round(RECORDS / seconds)} a second`)
  console.log(`yardstick, the same pages read and thrown away: ${yardstick.seconds.toFixed(2)} s`)
  console.log(`ratio ${(seconds / yardstick.seconds).toFixed(1)}`)
}

if (what === 'serve') serve(one)
else await measure(one, two)
