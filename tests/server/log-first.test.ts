import { mkdtempSync, readlinkSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { openStore, type Store } from '../../server/db/database'
import { studio } from '../../server/db/schema'

/** What was synced, in order, and the gate the waiting sync of the log stands at. */
const seen = vi.hoisted(() => ({ synced: [] as string[], gate: null as Promise<void> | null }))

vi.mock('node:fs', async (original) => {
  const fs = await original<typeof import('node:fs')>()
  const fsyncSync = (file: number) => {
    seen.synced.push(readlinkSync(`/proc/self/fd/${file}`))
    fs.fsyncSync(file)
  }
  return { ...fs, fsyncSync }
})
vi.mock('node:fs/promises', async (original) => {
  const files = await original<typeof import('node:fs/promises')>()
  const open = async (path: string, flags: string) => {
    await seen.gate
    return files.open(path, flags)
  }
  return { ...files, open }
})

const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-log-first-'))
let store: Store
beforeAll(async () => {
  store = await openStore(folder)
})
afterAll(async () => {
  await store.close()
  rmSync(folder, { recursive: true })
})

it('brings no page to the disk while the sync of the log that speaks of it is still under way', async () => {
  let letGo = () => {}
  seen.gate = new Promise((go) => (letGo = go))
  await store.database.insert(studio).values({ id: uuid(), name: 'Reedwater' })
  const settled = store.settle()
  seen.synced.length = 0
  await store.database.execute(sql`checkpoint`)
  letGo()
  seen.gate = null
  await settled
  const isLog = (path: string) => /pg_wal\/[\dA-F]{24}$/.test(path)
  const page = seen.synced.findIndex((path) => path.includes('/base/'))
  const log = seen.synced.findIndex(isLog)
  expect(page).toBeGreaterThan(-1)
  expect(log).toBeGreaterThan(-1)
  expect(log).toBeLessThan(page)
  // The folder of the log too, or a file begun anew could be missing from it.
  expect(seen.synced.findIndex((path) => path.endsWith('pg_wal'))).toBeLessThan(page)
})
