import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { openStore } from '../server/db/database'
import { caliper, studio } from '../server/db/schema'
import { memoryBus } from '../server/ports/bus'
import { memoryShelf } from '../server/ports/shelf'
import { changeIn } from '../server/write/change'

const CHANGES = 500
const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-sync-'))
const store = await openStore(folder)
const studioId = uuid()
await store.database.insert(studio).values({ id: studioId, name: 'Reedwater' })
const ports = { bus: memoryBus(), shelf: memoryShelf() }

/** One change through the door; `settle` is what waits for the disk. */
function add(settle: () => Promise<void>) {
  return changeIn(
    { store: { database: store.database, settle }, ports },
    { kind: 'system', studioId },
    { kind: 'caliper.added' },
    (tx) => tx.insert(caliper).values({ id: uuid(), studioId, name: 'Bench' }),
  )
}

async function timed(together: number, settle: () => Promise<void>) {
  const [began, syncs] = [performance.now(), store.syncs()]
  for (let i = 0; i < CHANGES; i += together) await Promise.all(Array.from({ length: together }, () => add(settle)))
  return { ms: (performance.now() - began) / CHANGES, syncs: (store.syncs() - syncs) / CHANGES }
}

for (const together of [1, 50]) {
  const without = await timed(together, async () => undefined)
  await store.settle()
  const synced = await timed(together, store.settle)
  console.log(
    `${String(together).padStart(2)} at once: ${synced.ms.toFixed(2)} ms a change with ${synced.syncs.toFixed(2)} syncs, ` +
      `${without.ms.toFixed(2)} ms without: ${(synced.ms / without.ms).toFixed(2)} times`,
  )
}
await store.close()
rmSync(folder, { recursive: true })
