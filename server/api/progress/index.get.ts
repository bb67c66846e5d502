import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { findProgress } from '../../repositories/progress'

/** How good assessors are: a lead sees everybody, a coach themselves. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  return findProgress(await useDatabase(), who, { only: who.role === 'lead' ? undefined : who.staffId })
})
