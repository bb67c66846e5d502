import { existsSync, readFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import type { Assume } from 'drizzle-orm'
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core'
import { drizzle } from 'drizzle-orm/pglite'
import { migrate } from 'drizzle-orm/pglite/migrator'
import { completeFolder, prepareFolder } from './data-folder'
import { lockFolder } from './folder-lock'
import { GuardedClient } from './guarded-client'
import * as schema from './schema'
import type { ServerDatabase } from './server-store'
import { SyncedFiles, syncTree } from './synced-files'

/** What a question by hand answers: the same of the embedded database and of a server. */
interface Answered<Row> {
  rows: Row[]
}
interface RowsOf extends PgQueryResultHKT {
  type: Answered<Assume<this['row'], Record<string, unknown>>>
}

/** The database with its whole power, embedded or a server. Only the door for writes (server/write) and seeds hold it. */
export type Database = PgDatabase<RowsOf, typeof schema>

/** A transaction, as the door for writes hands it out: what a repository changes facts with. */
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0]

/** What reading needs: the database or a transaction. */
export type Queryable = Pick<Database, 'select' | 'selectDistinctOn' | 'execute'>

/** Where the studio's facts are kept, opened: its database, and the ways it is made safe and closed. */
export interface Store {
  database: Database
  /** A server others may use as well: null for the embedded database, which belongs to this process. */
  server: ServerDatabase | null
  /** Reads everything as of one moment. On the embedded database changes wait until it has been read; reading goes on. */
  snapshot: <Result>(read: (db: Queryable) => Promise<Result>) => Promise<Result>
  /** Reads for long without keeping anyone waiting: at one moment on a server, the embedded database as it goes on. */
  browse: <Result>(read: (db: Queryable) => Promise<Result>) => Promise<Result>
  /** Brings many rows in at once, as lines of comma-separated values; for seeds. */
  copy: (table: string, columns: string, rows: readonly string[]) => Promise<void>
  /** Resolves once everything committed before the call is on the disk. */
  settle: () => Promise<void>
  /** How often the log was synced to the disk. */
  syncs: () => number
  /** Rewrites what the database's own files still hold of deleted rows: they are gone from the disk when this resolves. */
  scrub: () => Promise<void>
  /** Calls back when the database has ended by itself: a full disk, say. */
  whenGone: (tell: (reason: string) => void) => void
  close: () => Promise<void>
}

/** Migrations stand beside the built server, and in the source tree for development and tests. */
export function migrationsFolder(): string {
  const beside = join(dirname(process.env.OAK_PINCH_SERVER ?? process.argv[1] ?? ''), 'migrations')
  const built = resolve('.output/server/migrations')
  const source = resolve('server/db/migrations')
  return [beside, source, built].find((folder) => existsSync(join(folder, 'meta'))) ?? source
}

/** How many migrations this version has: what an archive was written by, and what it needs to be read. */
export function migrationsCount(): number {
  const journal = readFileSync(join(migrationsFolder(), 'meta/_journal.json'), 'utf8')
  return (JSON.parse(journal) as { entries: unknown[] }).entries.length
}

/** As the embedded database starts by itself, but for "-F": it is to write through to the disk. */
const START = [
  ...PGlite.defaultStartParams.filter((flag) => flag !== '-F'),
  ...['fsync=on', 'wal_sync_method=fsync', 'synchronous_commit=on'].flatMap((setting) => ['-c', setting]),
]

/** What the embedded database does as a store. */
function embeddedStore(
  client: GuardedClient,
  database: Database,
  files: Pick<SyncedFiles, 'settle' | 'syncs'>,
  close: () => Promise<void>,
): Store {
  return {
    database,
    server: null,
    snapshot: (read) => client.holdChanges(() => read(database)),
    browse: (read) => read(database),
    async copy(table, columns, rows) {
      const blob = new Blob([rows.join('\n')])
      await client.query(`copy ${table} (${columns}) from '/dev/blob' with (format csv)`, [], { blob })
    },
    settle: () => files.settle(),
    scrub: () => client.scrub(),
    syncs: () => files.syncs,
    whenGone: () => undefined,
    close,
  }
}

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
    const embedded = drizzle(client, { schema })
    await migrate(embedded, { migrationsFolder: migrationsFolder() })
    if (fresh) {
      syncTree(folder)
      completeFolder(resolve(dataDir))
    }
    const store = embeddedStore(client, embedded as unknown as Database, files, async () => {
      await files.settle()
      await client.close()
      unlock()
    })
    return { ...store, whenGone: (tell) => client.whenGone(tell) }
  } catch (error) {
    unlock()
    throw error
  }
}
