import { existsSync } from 'node:fs'
import { mkdir } from 'node:fs/promises'
import { dirname, join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import * as schema from './schema'

export type Database = PgliteDatabase<typeof schema> & { $client: PGlite }

/** A transaction or the database itself: what a repository needs. */
export type Queryable = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>

/** Migrations stand beside the built server, and in the source tree for development and tests. */
function migrationsFolder(): string {
  const beside = join(dirname(process.argv[1] ?? ''), 'migrations')
  const built = resolve('.output/server/migrations')
  const source = resolve('server/db/migrations')
  return [beside, source, built].find((folder) => existsSync(join(folder, 'meta'))) ?? source
}

/**
 * Opens the database in a folder (made when missing) and brings it to the current schema.
 * @param folder data folder of PGlite; `memory://` for tests
 */
export async function openDatabase(folder: string): Promise<Database> {
  if (!folder.includes('://')) await mkdir(dirname(resolve(folder)), { recursive: true, mode: 0o700 })
  const database = drizzle(new PGlite(folder), { schema })
  await migrate(database, { migrationsFolder: migrationsFolder() })
  return database
}
