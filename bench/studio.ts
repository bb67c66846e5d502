import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openStore } from '../server/db/database'
import { seedStudio } from '../server/db/seed-studio'
import { studioTimes } from './studio-times'

const [clients, checkins] = (process.env.STUDIO ?? '1000x60').split('x').map(Number)
const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-bench-'))
try {
  const store = await openStore(folder)
  const began = performance.now()
  const made = await seedStudio(
    store,
    { clients: clients ?? 1000, checkins: checkins ?? 60 },
    { hash: async (password) => password, now: new Date(), seed: 20261125 },
  )
  console.log(
    `seeding ${clients} clients, ${made.readings} readings: ${((performance.now() - began) / 1000).toFixed(0)} s (target 300 s)`,
  )
  await studioTimes(store, {
    staffId: made.staffIds[0] ?? '',
    studioId: made.studioId,
    role: 'lead',
    sessionId: '',
  })
  await store.close()
} finally {
  rmSync(folder, { recursive: true, force: true })
}
