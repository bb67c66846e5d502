import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { openInMemory, openStore, type Store } from '../../server/db/database'
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

/** A store for one test file: in memory, or a database of its own on the server. */
export async function testStore(): Promise<Store> {
  return POSTGRES ? openServerStore(await makeDatabase('oak_empty'), 4) : openInMemory()
}

/** What a server that has ended, or shares its database, has stored. */
export function storeOf(server: { dataDir: string; env: { DATABASE_URL?: string | undefined } }): Promise<Store> {
  const url = server.env.DATABASE_URL
  return url ? openServerStore(url, 2) : openStore(server.dataDir)
}
