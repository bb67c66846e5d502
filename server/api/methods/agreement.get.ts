import { defineEventHandler } from 'h3'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { methodAgreements } from '../../repositories/other-methods'

/** How other methods' devices agree with the folds, over the studio's clients. */
export default defineEventHandler(async (event) => methodAgreements(await useDatabase(), signedInAs(event)))
