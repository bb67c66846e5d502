import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listEverybody, listStaff } from '../../repositories/staff'

/** People of the studio; a lead sees closed accounts too. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const db = await useDatabase()
  return who.role === 'lead'
    ? listEverybody(db, who)
    : (await listStaff(db, who)).map((person) => ({ ...person, active: true }))
})
