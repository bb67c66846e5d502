import type { BackupStatus } from '../../../../shared/schemas/data'
import { changeBackupState } from '../../../exchange/backup-state'
import { actorOf } from '../../../http/actor'
import { defineRoute } from '../../../http/route'
import { backupStatus } from '../../../jobs/nightly-backup'
import { ownBackups } from '../../../jobs/own-backups'
import { change } from '../../../write/use-change'

/** Takes the database as it is after damage was found: the next backup is not compared with the ones before. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<BackupStatus> => {
  const at = await ownBackups()
  await change(actorOf(event), { kind: 'data.accepted' }, () => Promise.resolve())
  await changeBackupState(at.folder, { damage: null, accepted: true })
  return backupStatus(at)
})
