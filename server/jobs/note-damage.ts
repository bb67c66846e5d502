import { mkdir } from 'node:fs/promises'
import type { DamageFound } from '../exchange/backup-checks'
import { changeBackupState } from '../exchange/backup-state'
import { errorFacts, log } from '../http/log'
import { backupFolder } from './use-data'

let noted: string | null = null

/** Shouts damage of the database where a request ran into it: in the log, and to leads. Once for each kind of it. */
export function noteDamage({ message }: DamageFound): void {
  if (noted === message) return
  noted = message
  log.fatal({ what: 'damage found', damage: message })
  const folder = backupFolder()
  const damage = { at: new Date().toISOString(), sentence: message }
  mkdir(folder, { recursive: true, mode: 0o700 })
    .then(() => changeBackupState(folder, { damage }))
    .catch((error: unknown) => log.error({ what: 'damage not noted', ...errorFacts(error) }))
}
