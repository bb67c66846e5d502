import { setResponseStatus } from 'h3'
import { addDays } from '../../../core/calendar'
import { absenceInput, type AbsenceRecord } from '../../../shared/schemas/account'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { todayAt } from '../../http/days'
import { failure } from '../../http/failure'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addAbsence, listAbsences } from '../../repositories/absences'
import { listStaff } from '../../repositories/staff'
import { change } from '../../write/use-change'

/** Notes days somebody is away and who stands in: coaches their own, leads anybody's. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<AbsenceRecord[]> => {
  const who = signedInAs(event)
  const input = await readJson(event, absenceInput)
  if (who.role !== 'lead' && input.staffId !== who.staffId)
    throw failure(403, 'Only a lead coach notes days away for somebody else.')
  const db = await useDatabase()
  const people = new Map((await listStaff(db, who)).map((one) => [one.id, one]))
  const message = 'There is no such person here.'
  for (const field of ['staffId', 'standInId'] as const)
    if (input[field] !== null && !people.has(input[field])) throw failure(422, message, [{ field, message }])
  if (input.standInId && people.get(input.standInId)?.role === 'recorder') {
    const sentence = 'A recorder cannot stand in for a coach.'
    throw failure(422, sentence, [{ field: 'standInId', message: sentence }])
  }
  const today = todayAt(event)
  if (input.toDay < today) {
    const sentence = 'These days have been: give days from today on.'
    throw failure(422, sentence, [{ field: 'toDay', message: sentence }])
  }
  await change(actorOf(event), { kind: 'away.set', subjectId: input.id }, async (tx, unit) => {
    if ((await addAbsence(tx, who, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return listAbsences(db, who, { from: today, to: addDays(today, 400) })
})
