import { defineEventHandler } from 'h3'
import type { ClientHistory } from '../../../../shared/schemas/following'
import { useDatabase } from '../../../db/use-database'
import { noteLook } from '../../../http/looked'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { findHistory } from '../../../repositories/history'
import { openingOf } from '../../../repositories/opening'

/** The client with every fact about them; the page computes what it shows, but for a long chart’s first points. */
export default defineEventHandler(async (event): Promise<ClientHistory> => {
  const client = await clientAt(event)
  await noteLook(event, 'client.seen', client.id)
  const history = await findHistory(await useDatabase(), signedInAs(event), client)
  const opening = openingOf(history)
  return { ...history, ...(opening ? { opening } : {}) }
})
