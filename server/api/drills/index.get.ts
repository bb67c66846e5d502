import { defineEventHandler } from 'h3'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { listRounds } from '../../repositories/drills'

/** One's own rounds of drills. */
export default defineEventHandler(async (event) => listRounds(await useDatabase(), signedInAs(event).staffId))
