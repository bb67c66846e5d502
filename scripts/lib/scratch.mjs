import { existsSync, mkdirSync, readdirSync, rmSync, statfsSync } from 'node:fs'
import { join } from 'node:path'

const MEMORY = '/dev/shm'
const NAME = /^oak-pinch-tests-(\d+)$/
/** The tests hold under one gigabyte at any time. */
const ENOUGH = 4 * 2 ** 30

function isAlive(pid) {
  try {
    return process.kill(pid, 0)
  } catch (fault) {
    return fault.code === 'EPERM'
  }
}

/** What runs that were killed have left. */
function sweep() {
  for (const name of readdirSync(MEMORY)) {
    const pid = NAME.exec(name)?.[1]
    if (pid && !isAlive(Number(pid))) rmSync(join(MEMORY, name), { recursive: true, force: true })
  }
}

/**
 * Where this process and its children lay what they need for a while: in memory where there is enough, because a data
 * folder's 1,300 small files cost a disk ten times the work to copy and take away. Gone when the process ends; TMPDIR
 * given from outside stays.
 */
export function scratchInMemory() {
  if (process.env.TMPDIR || !existsSync(MEMORY)) return
  const { bavail, bsize } = statfsSync(MEMORY)
  if (bavail * bsize < ENOUGH) return
  sweep()
  const folder = join(MEMORY, `oak-pinch-tests-${process.pid}`)
  // Others may pass through it: PostgreSQL runs as a user of its own.
  mkdirSync(folder, { mode: 0o755, recursive: true })
  process.env.TMPDIR = folder
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }))
}
