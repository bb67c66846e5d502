import { setResponseStatus } from 'h3'
import { ageInYears, localDay } from '../../../../core/calendar'
import { ADULT_YEARS } from '../../../../core/cautions'
import { turnInput } from '../../../../shared/schemas/study'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { zoneOf } from '../../../http/days'
import { failure } from '../../../http/failure'
import { openStudyAt, tellStudy } from '../../../http/studies'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { startTurn } from '../../../repositories/checkins'
import { findClient } from '../../../repositories/clients'
import { addTurn, holdStudy, turnsOf } from '../../../repositories/studies'
import { change } from '../../../write/use-change'

/** Starts a turn: a check-in on the real log sheet that is none of the client's visits. Answers with the one under way. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const study = await openStudyAt(event)
  const input = await readJson(event, turnInput)
  const who = signedInAs(event)
  const person = study.people.find(({ id }) => id === input.personId)
  const pen = study.pens.find(({ id }) => id === input.penId)
  if (!person || !pen) throw failure(404, 'Nobody of this study.')
  if (pen.staffId && !pen.agreedOn)
    throw failure(409, `${pen.name} has not agreed to be compared: note the day they did first.`)
  const client = person.clientId && (await findClient(await useDatabase(), who, person.clientId))
  if (!client) throw failure(404, 'There is no such client, or not one of yours.')
  if (!client.consentOn) throw failure(409, `Note ${client.name}’s consent to being measured first.`)
  const day = localDay(input.startedAt, zoneOf(event))
  if (ageInYears(client.birthDate, day) < ADULT_YEARS && !client.guardianConsent)
    throw failure(409, 'Under 18: note a guardian’s consent before measuring.')
  const about = { clientId: client.id, checkinId: input.id, subjectId: study.id }
  const id = await change(actorOf(event), { kind: 'study.turn', ...about }, async (tx, unit) => {
    await holdStudy(tx, study.id)
    const own = (await turnsOf(tx, [study.id])).filter(
      ({ personId, penId }) => personId === person.id && penId === pen.id,
    )
    const begun = own.find(({ checkinId, finished }) => checkinId === input.id || !finished)
    if (begun) {
      unit.unchanged()
      return begun.checkinId
    }
    // A first turn that was voided is measured anew as the first.
    const trial = own.some((turn) => turn.trial === 1) ? 2 : 1
    if (own.length >= (study.kind === 'repeat' ? 2 : 1)) throw failure(409, 'This turn has been measured.')
    await startTurn(tx, who, {
      id: input.id,
      clientId: client.id,
      protocolId: study.protocolId,
      side: client.usualSide,
      startedAt: input.startedAt,
      day,
      studyId: study.id,
      assessorId: pen.staffId ?? who.staffId,
      caliperId: pen.caliperId,
    })
    await addTurn(tx, { checkinId: input.id, studyId: study.id, personId: person.id, penId: pen.id, trial })
    return input.id
  })
  tellStudy(event, study.id)
  setResponseStatus(event, id === input.id ? 201 : 200)
  return { id }
})
