import { defineEventHandler } from 'h3'
import { sql } from 'drizzle-orm'
import { useDatabase } from '../db/use-database'

/** Whether the application answers and its database does. */
export default defineEventHandler(async () => {
  await (await useDatabase()).execute(sql`select 1`)
  return { ok: true }
})
