import { randomUUID } from 'node:crypto'
import {
  existsSync,
  linkSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { hostname } from 'node:os'
import { join } from 'node:path'

/** Who holds a data folder. */
interface Owner {
  pid: number
  /** When the process started, as its machine counts it: a pid alone may have been given to another process since. */
  started: string
  host: string
}

/** A data folder another live process holds. */
export class FolderInUse extends Error {
  constructor(folder: string, { pid, host }: Owner) {
    super(
      `The data folder ${folder} is in use by another Oak Pinch (process ${pid} on ${host}). ` +
        'Stop that one first, or start with another DATA_DIR.',
    )
  }
}

const LOCK = 'lock'
/** A holder on this machine is asked for; one on another machine shows itself by touching its lock. */
const BEAT_MS = 10_000
const SILENT_MS = 60_000

/** Start of a process in clock ticks since the machine was booted, with the boot's own id; null where none runs. */
function startOf(pid: number): string | null {
  try {
    process.kill(pid, 0)
  } catch (error) {
    // EPERM: it runs, under somebody else.
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return null
  }
  try {
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
      .replace(/^.*\) /s, '')
      .split(' ')
    // A process that has ended and waits to be taken note of holds nothing.
    if (fields[0] === 'Z' || fields[0] === 'X') return null
    return `${readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim()}/${fields[19]}`
  } catch {
    return existsSync('/proc/self/stat') ? null : 'unknown'
  }
}

function readOwner(path: string): Owner | null {
  try {
    return JSON.parse(readFileSync(path, 'utf8')) as Owner
  } catch {
    return null
  }
}

/** Whether the process that wrote a lock still runs. */
function isLive(path: string, owner: Owner | null): owner is Owner {
  if (owner === null) return false
  if (owner.host === hostname()) return startOf(owner.pid) === owner.started
  try {
    return Date.now() - statSync(path).mtimeMs < SILENT_MS
  } catch {
    return false
  }
}

/**
 * Takes a data folder for this process alone, until the returned function is called or the process ends. A lock left by
 * a process that runs no more is taken over.
 * @throws FolderInUse while another process holds it
 */
export function lockFolder(folder: string): () => void {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const path = join(folder, LOCK)
  const mine: Owner = { pid: process.pid, started: startOf(process.pid) ?? 'unknown', host: hostname() }
  const written = join(folder, `${LOCK}-${randomUUID()}`)
  writeFileSync(written, JSON.stringify(mine), { mode: 0o600 })
  try {
    while (!placed(written, path)) {
      const owner = readOwner(path)
      if (isLive(path, owner)) throw new FolderInUse(folder, owner)
      setAside(path, owner)
    }
  } finally {
    rmSync(written, { force: true })
  }
  const beat = setInterval(() => touch(path), BEAT_MS)
  beat.unref()
  return () => {
    clearInterval(beat)
    if (readOwner(path)?.pid === mine.pid) rmSync(path, { force: true })
  }
}

/** A link is made whole or not at all: of two processes that start together one gets it. */
function placed(written: string, path: string): boolean {
  try {
    linkSync(written, path)
    return true
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EEXIST') return false
    throw error
  }
}

/** Takes a stale lock away, and only that one: whoever has put a fresh one there meanwhile keeps it. */
function setAside(path: string, stale: Owner | null): void {
  const aside = `${path}-${randomUUID()}`
  try {
    renameSync(path, aside)
  } catch {
    return
  }
  const taken = readOwner(aside)
  if (JSON.stringify(taken) !== JSON.stringify(stale)) placed(aside, path)
  rmSync(aside, { force: true })
}

function touch(path: string): void {
  try {
    utimesSync(path, new Date(), new Date())
  } catch {
    // Taken away by hand: the database stays open all the same.
  }
}
