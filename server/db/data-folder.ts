import { chmodSync, existsSync, mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** A folder that held a database and lacks parts of it. */
export class FolderDamaged extends Error {
  constructor(folder: string, missing: readonly string[]) {
    super(
      `The database in ${folder} lacks ${missing.join(', ')}. It is not touched, and no new one is laid over it: ` +
        'put the folder back from a copy, or start with another DATA_DIR.',
    )
  }
}

/** What a database cannot be without. */
const PARTS = ['PG_VERSION', 'global/pg_control', 'base', 'pg_wal', 'pg_xact']

/** Stands beside a database that is still being made for the first time: nobody has stored anything in it yet. */
const MAKING = 'making-database'

/** Stands in a data folder from the moment its database is whole. */
const KEPT = 'database-kept'

function closeToOthers(path: string): void {
  const isFolder = statSync(path).isDirectory()
  chmodSync(path, isFolder ? 0o700 : 0o600)
  if (isFolder) for (const name of readdirSync(path)) closeToOthers(join(path, name))
}

/**
 * Makes a data folder ready for its database: folders 0700 and files 0600 whatever stood there, files made from now on
 * alike. A database is made only where none ever was.
 * @returns the database's folder, and whether it is to be made
 * @throws FolderDamaged where a database was and parts of it are missing
 */
export function prepareFolder(dataDir: string): { folder: string; fresh: boolean } {
  process.umask(0o077)
  const folder = join(dataDir, 'postgres')
  const making = join(dataDir, MAKING)
  // An earlier start died while making it: nothing was ever stored there.
  if (existsSync(making)) rmSync(folder, { recursive: true, force: true })
  const fresh = !existsSync(folder) || readdirSync(folder).length === 0
  if (fresh) {
    if (existsSync(join(dataDir, KEPT)) && !existsSync(making)) throw new FolderDamaged(folder, ['everything'])
    writeFileSync(making, '')
    mkdirSync(folder, { recursive: true })
  } else {
    const missing = PARTS.filter((part) => !existsSync(join(folder, part)))
    if (missing.length > 0) throw new FolderDamaged(folder, missing)
    if (!existsSync(join(dataDir, KEPT))) writeFileSync(join(dataDir, KEPT), '')
  }
  closeToOthers(dataDir)
  return { folder, fresh }
}

/** Notes that the database of a data folder is whole: from now on it is never made anew. */
export function completeFolder(dataDir: string): void {
  writeFileSync(join(dataDir, KEPT), '')
  rmSync(join(dataDir, MAKING), { force: true })
}
