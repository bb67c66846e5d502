import { defineEventHandler } from 'h3'
import { useDatabase } from '../db/use-database'
import { isEmpty } from '../repositories/staff'

export default defineEventHandler(async () => ({ needed: await isEmpty(await useDatabase()) }))
