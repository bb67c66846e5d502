import { addDays } from '../../../core/calendar'
import type { AbsenceRecord } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { todayAt } from '../../http/days'
import { failure } from '../../http/failure'
import { idParam } from '../../http/params'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { endAbsence, listAbsences } from '../../repositories/absences'
import { change } from '../../write/use-change'

/** Takes days away back: coaches their own, leads anybody's. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<AbsenceRecord[]> => {
  const who = signedInAs(event)
  const sentence = 'There are no such days away.'
  const id = idParam(event, sentence)
  const db = await useDatabase()
  const today = todayAt(event)
  const days = { from: today, to: addDays(today, 400) }
  const own = (await listAbsences(db, who, days)).find((one) => one.id === id)
  if (own && who.role !== 'lead' && own.staffId !== who.staffId)
    throw failure(403, 'Only a lead coach takes back days away of somebody else.')
  await change(actorOf(event), { kind: 'away.ended', subjectId: id }, async (tx) => {
    if (!(await endAbsence(tx, who, id))) throw failure(404, sentence)
  })
  return listAbsences(db, who, days)
})
