/**
 * npm run bench:load: fifty coaches measuring for two minutes with live streams open; nothing refused, nothing lost.
 * POSTGRES=1 PROCESSES=2: on two processes on a PostgreSQL server.
 */
import { randomUUID } from 'node:crypto'
import { manyCoaches } from './lib/many-coaches.mjs'
import { ensureBuilt, ensureInstalled } from './lib/prepare.mjs'
import { startPostgres } from './lib/postgres.mjs'
import { startServer } from './lib/server-process.mjs'

const COACHES = Number(process.env.COACHES ?? 50)
const SECONDS = Number(process.env.SECONDS ?? 120)
/** A coach with a caliper keeps a reading about every four seconds. */
const PAUSE_MS = 4_000
const SITES = ['chest', 'midaxillary', 'triceps', 'subscapular', 'abdominal', 'suprailiac', 'thigh']

ensureInstalled()
ensureBuilt()
const postgres = process.env.POSTGRES === '1' ? await startPostgres({ durable: true }) : null
const shared = postgres ? { DATABASE_URL: postgres.url, NUXT_SESSION_PASSWORD: 'o'.repeat(40) } : {}
/** One, or several on one database: coaches are spread over them. */
const servers = await Promise.all(
  Array.from({ length: postgres ? Number(process.env.PROCESSES ?? 1) : 1 }, () => startServer({ env: shared })),
)
console.log(
  `${servers.length} ${servers.length === 1 ? 'process' : 'processes'} on ${postgres ? 'PostgreSQL' : 'the embedded database'}`,
)
let callers = 0
const taken = { write: [], read: [] }
let [sent, refused, heard] = [0, 0, 0]

function caller() {
  const server = servers[(callers += 1) % servers.length]
  const cookies = new Map()
  return async (method, path, body, kind = null) => {
    const began = performance.now()
    const response = await fetch(server.address + path, {
      method,
      headers: {
        origin: server.address,
        'content-type': 'application/json',
        cookie: [...cookies].map(([name, value]) => `${name}=${value}`).join('; '),
      },
      ...(body ? { body: JSON.stringify(body) } : {}),
    })
    for (const line of response.headers.getSetCookie()) {
      const [name, value] = line.split(';')[0].split(/=(.*)/s)
      cookies.set(name, value)
    }
    if (kind === 'stream') return response
    const answer = await response.json()
    if (kind) taken[kind].push(performance.now() - began)
    if (!response.ok) refused += 1
    return answer
  }
}

const { coaches } = await manyCoaches(caller, COACHES)
console.log(`${COACHES} coaches signed in; measuring for ${SECONDS} s ...`)

async function listen(coach, checkinId) {
  const stream = await coach('GET', `/api/checkins/${checkinId}/stream`, null, 'stream')
  const reader = stream.body.pipeThrough(new TextDecoderStream()).getReader()
  void (async () => {
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      heard += part.value.split('\n').filter((line) => line.startsWith('data: {')).length
    }
  })().catch(() => undefined)
}

const until = Date.now() + SECONDS * 1000
const held = []
const rest = (ms) => new Promise((wake) => setTimeout(wake, ms))
await Promise.all(
  coaches.map(async (coach, i) => {
    const client = {
      id: randomUUID(),
      name: `Rower ${i}`,
      sex: 'female',
      birthDate: '1992-03-14',
      heightCm: 174,
      usualSide: 'right',
      notes: '',
      consentOn: '2026-01-10',
    }
    await coach('POST', '/api/clients', client)
    const start = { id: randomUUID(), protocolId: 'laboratory-7', startedAt: new Date().toISOString() }
    await coach('POST', `/api/clients/${client.id}/checkins`, start)
    await listen(coach, start.id)
    const ids = []
    held.push({ coach, checkinId: start.id, ids })
    await rest((PAUSE_MS * i) / COACHES)
    for (let n = 0; Date.now() < until; n += 1) {
      const reading = {
        id: randomUUID(),
        site: SITES[n % SITES.length],
        round: 1 + (Math.floor(n / SITES.length) % 20),
        value: 8 + (n % 20),
        unit: 'mm',
        takenAt: new Date().toISOString(),
        source: 'pad',
      }
      sent += 1
      const answer = await coach(
        'POST',
        `/api/checkins/${start.id}/events`,
        { readings: [reading], strikes: [] },
        'write',
      )
      if (answer.stored?.includes(reading.id)) ids.push(reading.id)
      await coach('GET', n % 3 === 0 ? '/api/floor' : n % 3 === 1 ? '/api/clients' : '/api/me', null, 'read')
      await rest(PAUSE_MS / 2 + (PAUSE_MS / 2) * Math.random())
    }
  }),
)
let lost = 0
for (const { coach, checkinId, ids } of held) {
  const { checkin } = await coach('GET', `/api/checkins/${checkinId}`)
  const there = new Set(checkin.readings.map(({ id }) => id))
  lost += ids.filter((id) => !there.has(id)).length
}
await Promise.all(servers.map((server) => server.remove()))
await postgres?.stop()

for (const [kind, times] of Object.entries(taken)) {
  const sorted = times.sort((a, b) => a - b)
  const at = (share) => (sorted[Math.floor(share * (sorted.length - 1))] ?? NaN).toFixed(1)
  console.log(
    `${kind.padEnd(6)} ${String(sorted.length).padStart(6)} requests   p50 ${at(0.5)} ms, p95 ${at(0.95)} ms, p99 ${at(0.99)} ms`,
  )
}
console.log(`${sent} readings sent, ${refused} requests refused, ${lost} readings lost, ${heard} live messages heard`)
process.exitCode = refused + lost === 0 ? 0 : 1
