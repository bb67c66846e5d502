import { defineEventHandler } from 'h3'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { registerOf } from '../../repositories/calipers'

/** Every caliper with everything that was ever checked. */
export default defineEventHandler(async (event) => registerOf(await useDatabase(), signedInAs(event)))
