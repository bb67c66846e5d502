import { setResponseStatus } from 'h3'
import { ageInYears } from '../../../../core/calendar'
import { ADULT_YEARS } from '../../../../core/cautions'
import { todayAt } from '../../../http/days'
import { failure } from '../../../http/failure'
import { neutralLeaveInput } from '../../../../shared/schemas/following'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addNeutralLeave } from '../../../repositories/neutral-leaves'
import { change } from '../../../write/use-change'

/** Notes why somebody looks past a client's neutral mode. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const client = await clientAt(event)
  const clientId = client.id
  const input = await readJson(event, neutralLeaveInput)
  if (ageInYears(client.birthDate, todayAt(event)) < ADULT_YEARS && signedInAs(event).role !== 'lead')
    throw failure(403, 'Under 18: a lead alone shows percent and masses, with a reason.')
  await change(actorOf(event), { kind: 'neutral.left', clientId, subjectId: input.id }, async (tx, unit) => {
    if ((await addNeutralLeave(tx, signedInAs(event), clientId, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return { ok: true }
})
