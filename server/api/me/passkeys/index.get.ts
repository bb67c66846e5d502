import { defineEventHandler } from 'h3'
import { useDatabase } from '../../../db/use-database'
import { signedInAs } from '../../../http/signed-in'
import { listPasskeys } from '../../../repositories/passkeys'

/** One's own passkeys. */
export default defineEventHandler(async (event) => listPasskeys(await useDatabase(), signedInAs(event).staffId))
