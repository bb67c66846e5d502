import { defineEventHandler } from 'h3'
import type { ClientHistory } from '../../../../shared/schemas/checkin'
import { useDatabase } from '../../../db/use-database'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { listCheckins } from '../../../repositories/checkins'

/** The client with every fact of every check-in; the page composes them. */
export default defineEventHandler(async (event): Promise<ClientHistory> => {
  const client = await clientAt(event)
  return { client, checkins: await listCheckins(await useDatabase(), signedInAs(event), client.id) }
})
