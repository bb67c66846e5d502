import type { RecordCheck } from '../../../shared/schemas/record'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { checkRecord } from '../../repositories/record-chain'

/** Whether the record is as it was written. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<RecordCheck> =>
  checkRecord(await useDatabase(), signedInAs(event)),
)
