import { setResponseStatus } from 'h3'
import { MOST_STUDIED, studyPersonInput } from '../../../../../shared/schemas/study'
import { useDatabase } from '../../../../db/use-database'
import { actorOf } from '../../../../http/actor'
import { readJson } from '../../../../http/body'
import { failure } from '../../../../http/failure'
import { openStudyAt, studyRecord, tellStudy } from '../../../../http/studies'
import { signedInAs } from '../../../../http/signed-in'
import { defineRoute } from '../../../../http/route'
import { findClient } from '../../../../repositories/clients'
import { addStudyPerson, holdStudy } from '../../../../repositories/studies'
import { change } from '../../../../write/use-change'

/** Adds somebody who is measured; only with their consent on record. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const found = await openStudyAt(event)
  const input = await readJson(event, studyPersonInput)
  const refuse = (status: number, message: string) => failure(status, message, [{ field: 'clientId', message }])
  const client = await findClient(await useDatabase(), signedInAs(event), input.clientId)
  if (!client || client.archived) throw refuse(422, 'There is no such client.')
  if (!client.consentOn) throw refuse(409, `Note ${client.name}’s consent to being measured first.`)
  if (found.people.some(({ id, clientId }) => clientId === client.id && id !== input.id))
    throw refuse(409, `${client.name} is in this study already.`)
  if (found.people.length >= MOST_STUDIED) throw refuse(409, `A study holds ${MOST_STUDIED} people at most.`)
  await change(actorOf(event), { kind: 'study.person', subjectId: found.id }, async (tx, unit) => {
    await holdStudy(tx, found.id)
    if ((await addStudyPerson(tx, found.id, input)) === 0) unit.unchanged()
  })
  tellStudy(event, found.id)
  setResponseStatus(event, 201)
  return studyRecord(event)
})
