import { sql } from 'drizzle-orm'
import { useDatabase } from '../db/use-database'
import { defineRoute } from '../http/route'

/** Whether the application answers and its database does. */
export default defineRoute({ access: 'open' }, async () => {
  await (await useDatabase()).execute(sql`select 1`)
  return { ok: true }
})
