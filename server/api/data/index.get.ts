import type { DataPage } from '../../../shared/schemas/data'
import { useDatabase } from '../../db/use-database'
import { listImports } from '../../exchange/take-back'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { backupStatus } from '../../jobs/nightly-backup'
import { ownBackups } from '../../jobs/own-backups'
import { useDataJobs } from '../../jobs/use-data'
import { findRetention, retentionDue } from '../../repositories/retention'

/** Data in, out and kept: what a lead sees of it. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<DataPage> => {
  const who = signedInAs(event)
  const db = await useDatabase()
  const retention = await findRetention(db, who)
  return {
    backup: await backupStatus(await ownBackups()),
    imports: await listImports(db, who),
    jobs: useDataJobs().running(who),
    retention,
    due: await retentionDue(db, who, retention),
  }
})
