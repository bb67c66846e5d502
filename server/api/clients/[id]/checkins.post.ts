import { setResponseStatus, type H3Event } from 'h3'
import type { z } from 'zod'
import { startCheckinInput } from '../../../../shared/schemas/checkin'
import type { FieldProblem } from '../../../../shared/schemas/problem'
import { ageInYears, localDay } from '../../../../core/calendar'
import { ADULT_YEARS } from '../../../../core/cautions'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { zoneOf } from '../../../http/days'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { listCalipers } from '../../../repositories/calipers'
import { startCheckin } from '../../../repositories/checkins'
import { listStaff } from '../../../repositories/staff'
import { change } from '../../../write/use-change'

/** People and calipers that are not this studio's. */
async function strangersIn(
  event: H3Event,
  {
    assessorId,
    recorderId,
    caliperId,
  }: Pick<z.output<typeof startCheckinInput>, 'assessorId' | 'recorderId' | 'caliperId'>,
): Promise<FieldProblem[]> {
  const db = await useDatabase()
  const who = signedInAs(event)
  const people = new Set((await listStaff(db, who)).map(({ id }) => id))
  const calipers = new Set((await listCalipers(db, who)).map(({ id }) => id))
  const problems: FieldProblem[] = []
  const message = 'This person does not work here.'
  if (assessorId && !people.has(assessorId)) problems.push({ field: 'assessorId', message })
  if (recorderId && !people.has(recorderId)) problems.push({ field: 'recorderId', message })
  if (caliperId && !calipers.has(caliperId))
    problems.push({ field: 'caliperId', message: 'There is no such caliper here.' })
  return problems
}

/** Starts a check-in; answers with the one already open for this client where there is one. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const client = await clientAt(event)
  const input = await readJson(event, startCheckinInput)
  if (client.archived) throw failure(409, 'This client is archived. Bring them back before measuring.')
  if (!client.consentOn) throw failure(409, 'Note the client’s consent before measuring.')
  const strangers = await strangersIn(event, input)
  if (strangers[0]) throw failure(422, strangers[0].message, strangers)
  const day = localDay(input.startedAt, zoneOf(event))
  if (ageInYears(client.birthDate, day) < ADULT_YEARS && !client.guardianConsent) {
    throw failure(409, 'Under 18: note a guardian’s consent before measuring.')
  }
  const start = { ...input, day, clientId: client.id, side: client.usualSide }
  const about = { clientId: client.id, checkinId: input.id }
  const { id } = await change(actorOf(event), { kind: 'checkin.started', ...about }, async (tx, unit) => {
    const begun = await startCheckin(tx, signedInAs(event), start)
    if (!begun.added) unit.unchanged()
    return begun
  })
  setResponseStatus(event, id === input.id ? 201 : 200)
  return { id }
})
