import { sql } from 'drizzle-orm'
import { useDatabase } from '../db/use-database'
import { isEnding } from '../http/ending'
import { failure } from '../http/failure'
import { defineRoute } from '../http/route'

/** Whether this process can take requests: its database answers and it is not about to end. */
export default defineRoute({ access: 'open' }, async () => {
  if (isEnding()) throw failure(503, 'This process is about to end.')
  await (await useDatabase()).execute(sql`select 1`)
  return { ready: true }
})
