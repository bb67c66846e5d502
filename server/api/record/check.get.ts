import { getQuery } from 'h3'
import { recordCheckQuery, type RecordCheck } from '../../../shared/schemas/record'
import { useDatabase } from '../../db/use-database'
import { parsed } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { checkRecord } from '../../repositories/record-chain'

/** Whether the audit log is as it was written, and still holds an entry that was noted elsewhere. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<RecordCheck> => {
  const { noted } = parsed(recordCheckQuery, getQuery(event))
  return checkRecord(await useDatabase(), signedInAs(event), noted ?? null)
})
