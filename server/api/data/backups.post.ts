import { setResponseStatus } from 'h3'
import type { DataJob } from '../../../shared/schemas/data'
import { actorOf } from '../../http/actor'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { backupNow } from '../../jobs/nightly-backup'
import { ownBackups } from '../../jobs/own-backups'
import { useDataJobs } from '../../jobs/use-data'
import { change } from '../../write/use-change'

/** Makes a backup now. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<DataJob> => {
  const who = signedInAs(event)
  await change(actorOf(event), { kind: 'data.exported' }, () => Promise.resolve())
  setResponseStatus(event, 202)
  return useDataJobs().start(who, { kind: 'backup', about: 'Backup' }, async (progress) => ({
    result: await backupNow(await ownBackups(), progress),
  }))
})
