import { defineEventHandler } from 'h3'
import type { RecordCheck } from '../../../shared/schemas/record'
import { useDatabase } from '../../db/use-database'
import { signedInAsLead } from '../../http/signed-in'
import { checkRecord } from '../../repositories/record-chain'

/** Whether the record is as it was written. */
export default defineEventHandler(async (event): Promise<RecordCheck> =>
  checkRecord(await useDatabase(), signedInAsLead(event)),
)
