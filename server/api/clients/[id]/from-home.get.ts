import { defineEventHandler } from 'h3'
import type { FromHome } from '../../../../shared/schemas/link'
import { useDatabase } from '../../../db/use-database'
import { clientAt } from '../../../http/params'
import { findFromHome } from '../../../repositories/client-home'

/** What a client hands in from afar, their link and their reminders. */
export default defineEventHandler(async (event): Promise<FromHome> =>
  findFromHome(await useDatabase(), await clientAt(event)),
)
