import { defineEventHandler } from 'h3'
import type { ClientHistory } from '../../../../shared/schemas/following'
import { useDatabase } from '../../../db/use-database'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { findHistory } from '../../../repositories/history'

/** The client with every fact about them; the page computes all it shows. */
export default defineEventHandler(async (event): Promise<ClientHistory> =>
  findHistory(await useDatabase(), signedInAs(event), await clientAt(event)),
)
