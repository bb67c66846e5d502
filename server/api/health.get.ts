import { sql } from 'drizzle-orm'
import { useDatabase } from '../db/use-database'
import { readBackupState } from '../exchange/backup-state'
import { failure } from '../http/failure'
import { defineRoute } from '../http/route'
import { backupFolder } from '../jobs/use-data'

/**
 * Whether the application answers, its database does, and the last backup found that database whole. 503 otherwise. A
 * process that is to be restarted or left out of the turn is told by /api/ready: damage is for a person to look at.
 */
export default defineRoute({ access: 'open' }, async () => {
  await (await useDatabase()).execute(sql`select 1`)
  const { damage } = await readBackupState(backupFolder())
  if (damage)
    throw failure(503, 'The last backup found the database damaged. A lead coach sees more under Studio, Data.')
  return { ok: true }
})
