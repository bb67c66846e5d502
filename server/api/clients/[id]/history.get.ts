import { defineEventHandler } from 'h3'
import type { ClientHistory } from '../../../../shared/schemas/following'
import { useDatabase } from '../../../db/use-database'
import { noteLook } from '../../../http/looked'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { findHistory } from '../../../repositories/history'

/** The client with every fact about them; the page computes all it shows. */
export default defineEventHandler(async (event): Promise<ClientHistory> => {
  const client = await clientAt(event)
  await noteLook(event, 'client.seen', client.id)
  return findHistory(await useDatabase(), signedInAs(event), client)
})
