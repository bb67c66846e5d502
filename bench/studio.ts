import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openStore } from '../server/db/database'
import { seedStudio } from '../server/db/seed-studio'
import { listClients } from '../server/repositories/client-list'
import { clientLines } from '../server/repositories/client-lines'
import { findClient } from '../server/repositories/clients'
import { findHistory } from '../server/repositories/history'
import { seededRandom } from '../core/simulate'

const [clients, checkins] = (process.env.STUDIO ?? '1000x60').split('x').map(Number)
const today = new Date().toISOString().slice(0, 10)

async function times(runs: number, run: (i: number) => Promise<unknown>): Promise<number[]> {
  const taken: number[] = []
  for (let i = 0; i < runs; i += 1) {
    const start = performance.now()
    JSON.stringify(await run(i))
    taken.push(performance.now() - start)
  }
  return taken.sort((a, b) => a - b)
}

function say(name: string, taken: number[], target: string): void {
  const at = (share: number) => (taken[Math.floor(share * (taken.length - 1))] ?? NaN).toFixed(1)
  console.log(`${name.padEnd(34)} p50 ${at(0.5)} ms, p95 ${at(0.95)} ms (target ${target})`)
}

const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-bench-'))
try {
  const store = await openStore(folder)
  const db = store.database
  const began = performance.now()
  const made = await seedStudio(
    db,
    { clients: clients ?? 1000, checkins: checkins ?? 60 },
    { hash: async (password) => password, now: new Date(), seed: 20261125 },
  )
  console.log(
    `seeding ${clients} clients, ${made.readings} readings: ${((performance.now() - began) / 1000).toFixed(0)} s (target 300 s)`,
  )
  const who = {
    staffId: made.staffIds[0] ?? '',
    studioId: made.studioId,
    role: 'lead' as const,
    sessionId: '' as const,
  }
  const cold = await times(1, () => clientLines(db, who, false))
  console.log(`every client’s line, first time: ${cold[0]?.toFixed(0)} ms`)
  const all = await clientLines(db, who, false)
  const random = seededRandom(7)
  const some = () => all[Math.floor(random.next() * all.length)]
  const list = { q: '', archived: false, sort: 'name', descending: false, filter: 'all', from: 0 } as const
  say(
    'client page data',
    await times(150, async () => {
      const client = await findClient(db, who, some()?.id ?? '')
      return client && findHistory(db, who, client)
    }),
    'p95 60 ms',
  )
  const sorts = ['name', 'fat', 'lean', 'sum', 'last', 'next'] as const
  say(
    'clients page, every sort',
    await times(150, (i) => listClients(db, who, { ...list, sort: sorts[i % sorts.length] ?? 'name' }, today)),
    'p95 80 ms',
  )
  say(
    'find as you type',
    await times(200, () => {
      const name = some()?.name ?? ''
      return listClients(db, who, { ...list, q: name.slice(0, 1 + Math.floor(random.next() * 6)) }, today)
    }),
    'p95 40 ms',
  )
  await store.close()
} finally {
  rmSync(folder, { recursive: true, force: true })
}
