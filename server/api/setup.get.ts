import { useDatabase } from '../db/use-database'
import { isEmpty } from '../repositories/staff'
import { defineRoute } from '../http/route'

export default defineRoute({ access: 'open' }, async () => ({ needed: await isEmpty(await useDatabase()) }))
