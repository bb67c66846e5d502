import { spawn } from 'node:child_process'
import { mkdir, mkdtemp, rm } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { text } from 'node:stream/consumers'
import { subDays } from 'date-fns'
import { migrationsCount } from '../db/database'
import { listBackups } from '../exchange/backups'
import { changeBackupState, readBackupState, type Trial } from '../exchange/backup-state'
import { log } from '../http/log'

/** Beside the built server (nuxt.config.ts puts it there). */
const FILE = 'restore-trial.mjs'

/** Restores a backup into an empty folder and says what is there. */
export type TryRestore = (file: string, scratch: string) => Promise<Pick<Trial, 'schema' | 'rows' | 'fault'>>

/** Once a week, and after each migration. */
const TRIED_DAYS = 7

/** In a process of its own, so that nobody waits for it. */
export const tryRestoreApart: TryRestore = async (file, scratch) => {
  const program = join(dirname(process.env.OAK_PINCH_SERVER ?? process.argv[1] ?? ''), FILE)
  const child = spawn(process.execPath, [program, file, scratch], {
    // An embedded database, also where the studio's own is a server.
    env: { ...process.env, DATABASE_URL: '' },
    // Its input closes with this process, and ends it.
    stdio: ['pipe', 'pipe', 'inherit'],
  })
  const said = await text(child.stdout)
  try {
    return JSON.parse(said) as Awaited<ReturnType<TryRestore>>
  } catch {
    return { schema: migrationsCount(), rows: 0, fault: 'The restore ended before it was done; the log says why.' }
  }
}

/** Whether a restore has to be tried: none was for a week, the last one failed, or the database has a new form since. */
function isDue(trial: Trial | null, now: Date): boolean {
  if (!trial || trial.fault !== null || trial.schema !== migrationsCount()) return true
  const at = Date.parse(trial.at)
  // A trial under a clock ahead of its time counts for nothing.
  return at < +subDays(now, TRIED_DAYS) || at > +now
}

/** Tries the last backup where that is due, and notes what came of it. @returns the trial, or null where none was due */
export async function tryRestoreWhenDue(
  folder: string,
  tryRestore: TryRestore,
  now = new Date(),
): Promise<Trial | null> {
  const [last] = await listBackups(folder)
  if (!last || !isDue((await readBackupState(folder)).trial, now)) return null
  await mkdir(folder, { recursive: true })
  const scratch = await mkdtemp(join(folder, 'trial-'))
  try {
    const trial = { name: last.name, at: now.toISOString(), ...(await tryRestore(join(folder, last.name), scratch)) }
    await changeBackupState(folder, { trial })
    if (trial.fault) log.error({ what: 'restore trial failed', backup: last.name, fault: trial.fault })
    else log.info({ what: 'restore tried', backup: last.name, rows: trial.rows })
    return trial
  } finally {
    await rm(scratch, { recursive: true, force: true })
  }
}
