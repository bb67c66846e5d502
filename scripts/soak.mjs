/**
 * npm run soak: the built application under a day's load for twenty minutes (MINUTES=n): fifty coaches measuring, two
 * hundred clients' links, imports and pages printed, and a kill -9 every two minutes. Ends with 1 where a fact that was
 * acknowledged is lost or doubled, something was refused, memory grows after warm-up, or something stays open.
 */
import { randomUUID } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, readlinkSync } from 'node:fs'
import { manyCoaches } from './lib/many-coaches.mjs'
import { startPostgres } from './lib/postgres.mjs'
import { ensureBuilt, ensureInstalled } from './lib/prepare.mjs'
import { startServer } from './lib/server-process.mjs'
import { caller, measureUntil, weighUntil } from './lib/soak-people.mjs'

const MINUTES = Number(process.env.MINUTES ?? 20)
const COACHES = Number(process.env.COACHES ?? 50)
const LINKS = Number(process.env.LINKS ?? 200)
const KILL_EVERY_S = Number(process.env.KILL_EVERY ?? 120)
/**
 * Seven folds in two rounds take a coach with a recorder five minutes beside the marking, a reading every twenty seconds
 * (common practice): here every nine, with a look at something after each. PACE=3 makes everybody three times as fast.
 */
const PACE = Number(process.env.PACE ?? 1)
const PAUSE_MS = 12_000 / PACE
/** A weight is handed in once a day; here by each phone every minute. */
const WEIGHT_EVERY_MS = 60_000 / PACE
/**
 * Memory may be so much larger at the end of a life than it was a third of the way through. The first life is warm-up
 * where others follow: in it the studio grows from nothing to all its coaches, clients and links.
 */
const GROWS_AT_MOST = 1.25
/** Files the database opens the first time something is asked of a table, which may be late in a life. */
const FILES_COME = 20

ensureInstalled()
ensureBuilt()
/** POSTGRES=1: on a PostgreSQL server, which is crashed too, with PROCESSES=n of the application before it. */
const postgres = process.env.POSTGRES === '1' ? await startPostgres({ durable: true }) : null
const env = {
  CONFIRM_AFTER_MINUTES: '600',
  ...(postgres ? { DATABASE_URL: postgres.url, NUXT_SESSION_PASSWORD: 'o'.repeat(40) } : {}),
}
const servers = []
// One after another: the first brings the schema.
for (let i = 0; i < (postgres ? Number(process.env.PROCESSES ?? 2) : 1); i += 1)
  servers.push(await startServer({ env }))
const [server] = servers
const serverOf = (i) => servers[i % servers.length]
// Listening, its own pipes and those of its threads are open from the start.
const atStart = open()
const seen = { refused: [], taken: {} }
let arrived = 0
// The lead arrives first, at the first process.
const { lead, coaches } = await manyCoaches(() => caller(serverOf(arrived++), seen), COACHES)
const until = Date.now() + MINUTES * 60_000
const rest = (ms) => new Promise((wake) => setTimeout(wake, ms))
const [measured, weighed, memory] = [[], [], []]
let [kills, lives, imported, printed] = [0, 0, 0, 0]
console.log(
  `${COACHES} coaches and ${LINKS} links for ${MINUTES} minutes on ${postgres ? `PostgreSQL and ${servers.length} processes` : 'the embedded database'} ...`,
)

function resident() {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid()}/status`, 'utf8'))?.[1]) / 1024
  } catch {
    return NaN
  }
}
/** What a process holds open, by kind: connections, and files (of which the embedded database keeps one a table and index). */
function open() {
  const folder = `/proc/${server.pid()}/fd`
  const held = { connections: 0, files: 0 }
  if (!existsSync(folder)) return held
  for (const name of readdirSync(folder)) {
    try {
      const what = readlinkSync(`${folder}/${name}`)
      if (what.startsWith('socket:')) held.connections += 1
      else held.files += 1
    } catch {
      // Closed while this was looked at.
    }
  }
  return held
}

async function killNowAndThen() {
  for (let from = Date.now(); Date.now() < until; await rest(1_000)) {
    memory.push({ life: lives, age: (Date.now() - from) / 1000, mb: resident(), files: open().files })
    if (Date.now() - from < KILL_EVERY_S * 1000 || until - Date.now() < KILL_EVERY_S * 500) continue
    // Each process in its turn, then the database.
    const turn = kills % (servers.length + (postgres ? 1 : 0))
    kills += 1
    if (turn === servers.length) {
      await postgres.crash()
      await rest(500)
      await postgres.start()
    } else {
      await servers[turn].kill()
      await servers[turn].start()
      if (turn === 0) lives += 1
    }
    from = Date.now()
  }
}

async function importNowAndThen() {
  for (let n = 0; Date.now() < until; n += 1) {
    const rows = Array.from(
      { length: 40 },
      (_, i) =>
        `Log ${n % 5},F,1990-01-01,2025-${String(1 + (i % 12)).padStart(2, '0')}-${String(1 + (n % 28)).padStart(2, '0')},${10 + (i % 9)}`,
    )
    const text = new TextEncoder().encode(`Name,Sex,DOB,Date,Triceps mm\n${[...new Set(rows)].join('\n')}\n`)
    const file = await lead('POST', '/api/data/files?name=log.csv', text)
    const job = file && (await lead('POST', `/api/data/files/${file.id}/import`, { id: randomUUID(), plan: null }))
    if (job) imported += 1
    await rest(15_000)
  }
}

async function printNowAndThen() {
  for (; Date.now() < until; await rest(3_000)) {
    const { clients = [] } = (await lead('GET', '/api/clients?filter=all&sort=last')) ?? {}
    const one = clients.find(({ checkins }) => checkins > 1) ?? null
    if (one && (await lead('GET', `/api/clients/${one.id}/take-home`))) printed += 1
  }
}

await Promise.all([
  ...coaches.map((coach, i) => measureUntil(coach, i, until, PAUSE_MS, measured)),
  ...Array.from({ length: LINKS }, (_, i) =>
    rest(i * 50).then(() => weighUntil(lead, serverOf(i), seen, i, until, WEIGHT_EVERY_MS, weighed)),
  ),
  killNowAndThen(),
  importNowAndThen(),
  printNowAndThen(),
])

let [lost, doubled] = [0, 0]
for (const { call, checkinId, ids } of measured) {
  const found = (await call('GET', `/api/checkins/${checkinId}`))?.checkin.readings.map(({ id }) => id) ?? []
  lost += ids.filter((id) => !found.includes(id)).length
  doubled += found.length - new Set(found).size
}
for (const { clientId, days } of weighed) {
  const found = ((await lead('GET', `/api/clients/${clientId}/history`))?.weighIns ?? []).map(({ day }) => day)
  lost += days.filter((day) => !found.includes(day)).length
  doubled += found.length - new Set(found).size
}
const { fault } = (await lead('GET', '/api/record/check')) ?? { fault: 'not answered' }
// What is still open once everybody has gone: connections end by themselves within seconds.
await rest(8_000)
const atEnd = open()
for (const one of servers) await one.remove()
await postgres?.stop()

const at = (all, share) => [...all].sort((a, b) => a - b)[Math.floor(share * (all.length - 1))] ?? NaN
for (const [kind, all] of Object.entries(seen.taken))
  console.log(
    `${kind.padEnd(8)} ${String(all.length).padStart(6)} requests   p50 ${at(all, 0.5).toFixed(1)}, p95 ${at(all, 0.95).toFixed(1)}, p99 ${at(all, 0.99).toFixed(1)} ms`,
  )
let [grown, filesGrown] = [0, 0]
for (let life = 0; life <= lives; life += 1) {
  const own = memory.filter((one) => one.life === life && one.mb > 0)
  const last = own.at(-1)?.age ?? 0
  const early = at(
    own.filter(({ age }) => age > last / 3 && age < last / 2).map(({ mb }) => mb),
    0.5,
  )
  const late = at(
    own.filter(({ age }) => age > (last * 5) / 6).map(({ mb }) => mb),
    0.5,
  )
  if (last > 60 && (life > 0 || lives === 0)) grown = Math.max(grown, late / early)
  const files = own.map((one) => one.files)
  const [filesHalfway = 0, filesLate = 0] = [files[Math.floor(files.length / 2)], files.at(-1)]
  if (last > 60) filesGrown = Math.max(filesGrown, filesLate - filesHalfway)
  console.log(
    `life ${life + 1}: ${last.toFixed(0)} s, ${early.toFixed(0)} MB after warm-up, ${late.toFixed(0)} MB at its end; ${filesHalfway} files open halfway, ${filesLate} at its end`,
  )
}
const facts =
  measured.reduce((sum, { ids }) => sum + ids.length, 0) + weighed.reduce((sum, { days }) => sum + days.length, 0)
console.log(
  `${facts} facts acknowledged, ${lost} lost, ${doubled} doubled; ${kills} kills, ${imported} imports, ${printed} pages`,
)
console.log(
  `open at the start ${atStart.connections} connections and ${atStart.files} files, at the end ${atEnd.connections} and ${atEnd.files}`,
)
console.log(`the record: ${fault ?? 'as it was written'}`)
for (const one of new Set(seen.refused))
  console.log(`refused: ${one} (${seen.refused.filter((other) => other === one).length})`)
const leftOpen = Math.max(0, atEnd.connections - atStart.connections) + Math.max(0, filesGrown - FILES_COME)
const isFine = lost + doubled + seen.refused.length === 0 && fault === null && grown < GROWS_AT_MOST && leftOpen === 0
process.exitCode = isFine ? 0 : 1
