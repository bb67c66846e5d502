import { defineEventHandler } from 'h3'
import { sql } from 'drizzle-orm'
import { useDatabase } from '../db/use-database'

export default defineEventHandler(async () => {
  await (await useDatabase()).execute(sql`select 1`)
  return { ok: true }
})
