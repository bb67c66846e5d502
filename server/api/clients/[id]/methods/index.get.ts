import { defineEventHandler } from 'h3'
import { useDatabase } from '../../../../db/use-database'
import { clientAt } from '../../../../http/params'
import { listOther } from '../../../../repositories/other-methods'

/** What other methods said of a client. */
export default defineEventHandler(async (event) => listOther(await useDatabase(), (await clientAt(event)).id))
