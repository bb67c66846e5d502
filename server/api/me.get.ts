import { defineEventHandler } from 'h3'
import { useDatabase } from '../db/use-database'
import { signedInAs } from '../http/signed-in'
import { findMe } from '../repositories/staff'

export default defineEventHandler(async (event) => findMe(await useDatabase(), signedInAs(event)))
