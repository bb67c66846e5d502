import { defineEventHandler } from 'h3'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { listStudies } from '../../repositories/studies'

/** The studio's studies. */
export default defineEventHandler(async (event) => listStudies(await useDatabase(), signedInAs(event)))
