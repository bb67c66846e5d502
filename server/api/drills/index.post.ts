import { setResponseStatus } from 'h3'
import { drillRoundInput } from '../../../shared/schemas/drill'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addRound, listRounds } from '../../repositories/drills'
import { change } from '../../write/use-change'

/** Keeps a round of a drill. Answers with all of one's own. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const round = await readJson(event, drillRoundInput)
  await change(actorOf(event), { kind: 'drill.played', subjectId: round.id }, async (tx, unit) => {
    if ((await addRound(tx, who, round)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return listRounds(await useDatabase(), who.staffId)
})
