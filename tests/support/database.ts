import { randomUUID } from 'node:crypto'
import { cpSync, existsSync, mkdtempSync, readdirSync, renameSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pg from 'pg'
import { fingerprint, ROOT } from '../../scripts/lib/prepare.mjs'
import { layTemplate } from '../../scripts/lib/template.mjs'
import { openStore, type Store } from '../../server/db/database'
import { seedDemo } from '../../server/db/seed-demo'
import { openServerStore } from '../../server/db/server-store'

/** Address of the PostgreSQL these tests run on; empty: on the embedded database (vitest.config.ts, project `postgres`). */
const POSTGRES = process.env.TEST_POSTGRES ?? ''

/** An address of another database of that server. */
export function onServer(name: string): string {
  const url = new URL(POSTGRES)
  url.pathname = `/${name}`
  return url.href
}

/** Makes a database of that server from a template of it. */
export async function makeDatabase(template: 'oak_empty' | 'oak_demo' | 'template0'): Promise<string> {
  const name = `oak_${randomUUID().replaceAll('-', '')}`
  const admin = new pg.Client({ connectionString: POSTGRES })
  await admin.connect()
  await admin.query(`create database ${name} template ${template}`).finally(() => admin.end())
  return onServer(name)
}

/** A store in a folder of its own, filled by somebody, gone when it is closed. */
async function ownStore(fill: (folder: string) => void): Promise<Store> {
  const folder = mkdtempSync(join(tmpdir(), 'oak-pinch-store-'))
  fill(folder)
  const store = await openStore(folder)
  return {
    ...store,
    async close() {
      await store.close()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** A store for one test file: in a folder copied from the template, or a database of its own on the server. */
export async function testStore(): Promise<Store> {
  return POSTGRES
    ? openServerStore(await makeDatabase('oak_empty'), 4)
    : ownStore((folder) => layTemplate('empty', folder))
}

/** When those who are made up have last been measured. */
export const SEEDED_AT = new Date('2026-11-24T18:00:00Z')

const seedClub = ({ database }: Store) => seedDemo(database, async (password) => password, SEEDED_AT)

/** The same with the club's people and their visits; the embedded one is seeded once and copied from then on. */
export async function seededStore(): Promise<Store> {
  if (POSTGRES) {
    const store = await testStore()
    await seedClub(store)
    return store
  }
  const print = fingerprint(['server/db', 'core', 'package-lock.json']).slice(0, 16)
  const cache = join(ROOT, '.cache')
  const kept = join(cache, `template-seeded-${print}`)
  if (!existsSync(kept)) {
    const making = mkdtempSync(join(cache, 'template-seeding-'))
    layTemplate('empty', making)
    const store = await openStore(making)
    await seedClub(store)
    await store.close()
    // Another worker may have been first.
    try {
      renameSync(making, kept)
      // Those of earlier code: by whoever was first, alone.
      for (const name of readdirSync(cache).filter((one) => one.startsWith('template-seeded-')))
        if (join(cache, name) !== kept) rmSync(join(cache, name), { recursive: true })
    } catch {
      rmSync(making, { recursive: true, force: true })
    }
  }
  return ownStore((folder) => cpSync(kept, folder, { recursive: true }))
}

/** What a server that has ended, or shares its database, has stored. */
export function storeOf(server: { dataDir: string; env: { DATABASE_URL?: string | undefined } }): Promise<Store> {
  const url = server.env.DATABASE_URL
  return url ? openServerStore(url, 2) : openStore(server.dataDir)
}
