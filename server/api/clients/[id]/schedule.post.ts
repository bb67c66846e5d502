import type { ClientSchedule } from '../../../../core/schedule'
import { scheduleInput } from '../../../../shared/schemas/schedule'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { todayAt } from '../../../http/days'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addSchedule, findSchedule } from '../../../repositories/schedules'
import { change } from '../../../write/use-change'

/** Keeps a client's cadence, pause and events; answers with the schedule that counts. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ClientSchedule> => {
  const client = await clientAt(event)
  const input = await readJson(event, scheduleInput)
  const db = await useDatabase()
  const today = todayAt(event)
  // What stood there before may have gone by meanwhile; only what is new has to be still to come.
  const before = new Set((await findSchedule(db, client.id)).events.map(({ id, day }) => `${id} ${day}`))
  const gone = input.events.findIndex(({ id, day }) => day < today && !before.has(`${id} ${day}`))
  if (gone >= 0) {
    const message = 'This event has been: give a day from today on.'
    throw failure(422, message, [{ field: `events.${gone}.day`, message }])
  }
  if (input.pause && input.pause.until < today) {
    const message = 'This pause has ended: give a day from today on.'
    throw failure(422, message, [{ field: 'pause.until', message }])
  }
  const about = { clientId: client.id, subjectId: input.id }
  await change(actorOf(event), { kind: 'schedule.set', ...about }, async (tx, unit) => {
    if ((await addSchedule(tx, signedInAs(event), client.id, input)) === 0) unit.unchanged()
  })
  return findSchedule(db, client.id)
})
