import { defineEventHandler } from 'h3'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { listStaff } from '../../repositories/staff'

export default defineEventHandler(async (event) => listStaff(await useDatabase(), signedInAs(event)))
