import { addDays } from '../../../core/calendar'
import type { AbsenceRecord } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { todayAt } from '../../http/days'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listAbsences } from '../../repositories/absences'

/** Who is away from today on. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<AbsenceRecord[]> => {
  const today = todayAt(event)
  return listAbsences(await useDatabase(), signedInAs(event), { from: today, to: addDays(today, 400) })
})
