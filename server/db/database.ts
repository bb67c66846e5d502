import { existsSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import { completeFolder, prepareFolder } from './data-folder'
import { lockFolder } from './folder-lock'
import { GuardedClient } from './guarded-client'
import * as schema from './schema'
import { SyncedFiles, syncTree } from './synced-files'

/** The database with its whole power. Only the door for writes (server/write) and seeds hold it. */
export type Database = PgliteDatabase<typeof schema> & { $client: PGlite }

/** A transaction, as the door for writes hands it out: what a repository changes facts with. */
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0]

/** What reading needs: the database or a transaction. */
export type Queryable = Pick<Database, 'select' | 'execute'>

/** A data folder opened: its database, and the ways it is made safe and closed. */
export interface Store {
  database: Database
  /** Resolves once everything committed before the call is on the disk. */
  settle: () => Promise<void>
  /** How often the log was synced to the disk. */
  syncs: () => number
  /** Calls back when the database has ended by itself: a full disk, say. */
  whenGone: (tell: (reason: string) => void) => void
  close: () => Promise<void>
}

/** Migrations stand beside the built server, and in the source tree for development and tests. */
function migrationsFolder(): string {
  const beside = join(dirname(process.env.OAK_PINCH_SERVER ?? process.argv[1] ?? ''), 'migrations')
  const built = resolve('.output/server/migrations')
  const source = resolve('server/db/migrations')
  return [beside, source, built].find((folder) => existsSync(join(folder, 'meta'))) ?? source
}

/** As the embedded database starts by itself, but for "-F": it is to write through to the disk. */
const START = [
  ...PGlite.defaultStartParams.filter((flag) => flag !== '-F'),
  ...['fsync=on', 'wal_sync_method=fsync', 'synchronous_commit=on'].flatMap((setting) => ['-c', setting]),
]

/**
 * Opens the database of a data folder, made when the folder is empty, and brings it to the current schema. The folder
 * belongs to this process until the store is closed.
 * @throws FolderInUse, FolderDamaged
 */
export async function openStore(dataDir: string): Promise<Store> {
  const unlock = lockFolder(resolve(dataDir))
  try {
    const { folder, fresh } = prepareFolder(resolve(dataDir))
    const files = new SyncedFiles(folder)
    const client = new GuardedClient({ fs: files, startParams: START })
    await client.waitReady
    const database = drizzle(client, { schema })
    await migrate(database, { migrationsFolder: migrationsFolder() })
    if (fresh) {
      syncTree(folder)
      completeFolder(resolve(dataDir))
    }
    return {
      database,
      settle: () => files.settle(),
      syncs: () => files.syncs,
      whenGone: (tell) => client.whenGone(tell),
      async close() {
        await files.settle()
        await client.close()
        unlock()
      },
    }
  } catch (error) {
    unlock()
    throw error
  }
}

/** A database in memory alone, at the current schema: for tests. */
export async function openInMemory(): Promise<Database> {
  const database = drizzle(new PGlite(), { schema })
  await migrate(database, { migrationsFolder: migrationsFolder() })
  return database
}
