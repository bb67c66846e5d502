import { DatabaseGone } from '../db/guarded-client'
import { isConnectionLost } from '../db/lost-connection'
import { PhotoStoreFailed } from '../ports/s3-photos'

const FULL = 'The disk of the machine this runs on is full: nothing could be stored. What was stored before is safe.'
const GONE =
  'The database has stopped and is being started again. What was stored before is safe; please try again in a moment.'

/** PostgreSQL's own codes: disk full, out of memory of the system, cannot write. */
const DISK_FULL = '53100'
/** The operating system's. */
const NO_SPACE = new Set(['ENOSPC', 'EDQUOT'])

const NO_DATABASE =
  'The database cannot be reached at the moment. What was stored before is safe; please try again in a moment.'
const NO_PICTURES =
  'The store of photographs cannot be reached at the moment: this picture was not taken. Everything else is safe.'

let stopped = false

/** Says that the database has ended: every answer from now on is that it has. */
export function noteStopped(): void {
  stopped = true
}

/** The sentence for a request that failed because the machine cannot store at the moment; null for any other failure. */
export function isOutOfOrder(causes: readonly unknown[]): string | null {
  const codes = causes.map((cause) => (cause as { code?: string } | null | undefined)?.code ?? '')
  if (codes.some((code) => code === DISK_FULL || NO_SPACE.has(code))) return FULL
  if (stopped || causes.some((cause) => cause instanceof DatabaseGone)) return GONE
  if (causes.some((cause) => cause instanceof PhotoStoreFailed)) return NO_PICTURES
  return causes.some(isConnectionLost) ? NO_DATABASE : null
}
