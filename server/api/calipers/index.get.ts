import { defineEventHandler } from 'h3'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { listCalipers } from '../../repositories/calipers'

export default defineEventHandler(async (event) => listCalipers(await useDatabase(), signedInAs(event)))
