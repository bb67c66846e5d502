import { defineEventHandler } from 'h3'
import type { DataPage } from '../../../shared/schemas/data'
import { useDatabase } from '../../db/use-database'
import { listImports } from '../../exchange/take-back'
import { signedInAsLead } from '../../http/signed-in'
import { backupStatus } from '../../jobs/nightly-backup'
import { ownBackups } from '../../jobs/own-backups'
import { useDataJobs } from '../../jobs/use-data'
import { findRetention, retentionDue } from '../../repositories/retention'

/** Data in, out and kept: what a lead sees of it. */
export default defineEventHandler(async (event): Promise<DataPage> => {
  const who = signedInAsLead(event)
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
