import { setResponseStatus } from 'h3'
import { correctionInput } from '../../../../shared/schemas/caliper'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { todayAt } from '../../../http/days'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addCorrection, everyCaliper, offeredCorrection, registerOf } from '../../../repositories/calipers'
import { change } from '../../../write/use-change'

/** Takes on what the newest check against the block found, from today on, or gives a correction up. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const sentence = 'There is no such caliper.'
  const caliperId = idParam(event, sentence)
  const { id, taken } = await readJson(event, correctionInput)
  const db = await useDatabase()
  if (!(await everyCaliper(db, who)).some((one) => one.id === caliperId)) throw failure(404, sentence)
  const correction = taken ? await offeredCorrection(db, who, caliperId) : null
  if (taken && !correction)
    throw failure(409, 'Its last check against the block offers no correction: have it adjusted, or check it again.')
  const fromDay = todayAt(event)
  await change(actorOf(event), { kind: 'caliper.corrected', subjectId: caliperId }, async (tx, unit) => {
    if ((await addCorrection(tx, who, caliperId, { id, fromDay, correction })) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return registerOf(db, who)
})
