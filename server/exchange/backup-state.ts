import { readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'

/** Beside the backups: what their names cannot say. */
const FILE = 'state.json'

const trial = z.strictObject({
  /** The backup that was restored as a trial. */
  name: z.string(),
  /** ISO 8601 instant. */
  at: z.string(),
  /** Migrations of the database it went into. */
  schema: z.int(),
  rows: z.int(),
  /** What went wrong, as a sentence; null: everything was there. */
  fault: z.string().nullable(),
})
/** A backup restored into a scratch folder, to see that it can be. */
export type Trial = z.output<typeof trial>

const damage = z.strictObject({ at: z.string(), sentence: z.string() })
/** The database holds less than it should, or a part of it cannot be read. */
export type Damage = z.output<typeof damage>

const backupState = z.strictObject({
  /** Names in the order the backups were made, which a wrong clock does not change. */
  order: z.array(z.string()).default([]),
  /** Which database each backup is of, how many rows had ever been deleted then by table, and the audit log's end. */
  counts: z
    .record(
      z.string(),
      z.strictObject({
        database: z.string(),
        deleted: z.record(z.string(), z.number()),
        record: z.string().nullable(),
      }),
    )
    .default({}),
  trial: trial.nullable().default(null),
  damage: damage.nullable().default(null),
  /** A lead has accepted the database as it is: the next backup is not compared with earlier ones. */
  accepted: z.boolean().default(false),
})
export type BackupState = z.output<typeof backupState>

/** The state of a folder of backups; an unreadable or missing file counts as none. */
export async function readBackupState(folder: string): Promise<BackupState> {
  const text = await readFile(join(folder, FILE), 'utf8').catch(() => '{}')
  try {
    return backupState.parse(JSON.parse(text))
  } catch {
    return backupState.parse({})
  }
}

/** Changes the state; written beside and renamed, so that a cut leaves the old one. */
export async function changeBackupState(folder: string, change: Partial<BackupState>): Promise<BackupState> {
  const next = { ...(await readBackupState(folder)), ...change }
  const part = join(folder, `${FILE}.${process.pid}`)
  await writeFile(part, JSON.stringify(next), { mode: 0o600 })
  await rename(part, join(folder, FILE))
  return next
}
