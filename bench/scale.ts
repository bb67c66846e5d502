import pg from 'pg'
import type { Store } from '../server/db/database'
import { openServerStore } from '../server/db/server-store'
import { seedStudio } from '../server/db/seed-studio'
import { usePorts } from '../server/ports'
import { findErrors } from '../server/repositories/assessor-errors'
import { listClients } from '../server/repositories/client-list'
import { clientLines } from '../server/repositories/client-lines'
import { findClient } from '../server/repositories/clients'
import { findFloor } from '../server/repositories/floor'
import { findHistory } from '../server/repositories/history'
import type { SignedIn } from '../server/repositories/staff'
import { explained } from './plans'
import { at, studioTimes, type Times } from './studio-times'

/** Clients of the small and the large installation, sixty check-ins each. */
const SIZES = (process.env.SCALE ?? '1000,10000').split(',').map(Number)
const CHECKINS = Number(process.env.CHECKINS ?? 60)
const server = process.env.BENCH_POSTGRES ?? ''

async function database(name: string): Promise<string> {
  const admin = new pg.Client({ connectionString: server })
  await admin.connect()
  await admin.query(`create database ${name}`).finally(() => admin.end())
  const url = new URL(server)
  url.pathname = `/${name}`
  return url.href
}

/** EXPLAIN of what a page, the list and the floor ask, cold for this client. */
async function plans(url: string, { database: db }: Store, who: SignedIn): Promise<void> {
  const today = new Date().toISOString().slice(0, 10)
  const [line] = await clientLines(db, who, false, today)
  const client = line && (await findClient(db, who, line.id))
  if (!client) return
  await explained(url, 'a client’s page', () => findHistory(db, who, client))
  await explained(url, 'the list', () =>
    listClients(db, who, { q: '', archived: false, sort: 'fat', descending: false, filter: 'all', from: 0 }, today),
  )
  await explained(url, 'the floor', () => findFloor(db, who, today, 'UTC'))
}

async function measured(clients: number): Promise<Record<string, Times>> {
  const url = await database(`oak_scale_${clients}`)
  const store = await openServerStore(url)
  const began = performance.now()
  const made = await seedStudio(
    store,
    { clients, checkins: CHECKINS },
    {
      hash: async (password) => password,
      now: new Date(),
      seed: 20261125,
      progress: (done) => done % 1000 === 0 && console.error(`  ${done} of ${clients} clients`),
    },
  )
  console.log(
    `\n${clients} clients, ${made.readings} readings, seeded in ${((performance.now() - began) / 1000).toFixed(0)} s`,
  )
  const who = { staffId: made.staffIds[0] ?? '', studioId: made.studioId, role: 'lead' as const, sessionId: '' }
  const learning = performance.now()
  await findErrors(store.database, who.studioId)
  console.log(`learning of the error from every repeat: ${((performance.now() - learning) / 1000).toFixed(1)} s`)
  const found = await studioTimes(store, who)
  await plans(url, store, who)
  await store.close()
  usePorts().shelf.clear()
  return found
}

const results: Record<string, Times>[] = []
for (const size of SIZES) results.push(await measured(size))
const [small, large] = results
if (small && large) {
  console.log(`\nfrom ${SIZES[0]} to ${SIZES[1]} clients, p95:`)
  for (const [name, taken] of Object.entries(large)) {
    const before = at(small[name] ?? [], 0.95)
    console.log(
      `  ${name.padEnd(8)} ${before.toFixed(1)} -> ${at(taken, 0.95).toFixed(1)} ms, ${(at(taken, 0.95) / before).toFixed(2)} times`,
    )
  }
}
