import { sql } from 'drizzle-orm'
import pg from 'pg'
import type { Store } from '../server/db/database'
import { openServerStore } from '../server/db/server-store'
import { seedStudio } from '../server/db/seed-studio'
import { usePorts } from '../server/ports'
import { findErrors } from '../server/repositories/assessor-errors'
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

/** Whole tables read, against rows fetched by an index, since the statistics were last set back. */
async function scans({ database: db }: Store): Promise<string[]> {
  await new Promise((settled) => setTimeout(settled, 1_500))
  const { rows } = await db.execute<{ relname: string; seq_scan: number; idx_scan: number }>(
    sql`select relname, seq_scan::int, coalesce(idx_scan, 0)::int as idx_scan from pg_stat_user_tables where relname in ('client', 'checkin', 'reading', 'strike', 'weigh_in', 'photo') order by relname`,
  )
  return rows.map(({ relname, seq_scan, idx_scan }) => `${relname} ${seq_scan} whole, ${idx_scan} by index`)
}

async function measured(clients: number): Promise<Record<string, Times>> {
  const store = await openServerStore(await database(`oak_scale_${clients}`))
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
  for (const line of await scans(store)) console.log(`  ${line}`)
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
