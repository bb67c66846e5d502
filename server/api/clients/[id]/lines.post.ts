import { setResponseStatus } from 'h3'
import { lineInput, type LineRecord } from '../../../../shared/schemas/link'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addLine, isOwnHandIn, listLines } from '../../../repositories/hand-ins'
import { change } from '../../../write/use-change'

/** Writes a line to a client; they read it at their link. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<LineRecord[]> => {
  const client = await clientAt(event)
  const input = await readJson(event, lineInput)
  const db = await useDatabase()
  if (input.handInId && !(await isOwnHandIn(db, client.id, input.handInId)))
    throw failure(422, 'There is no such week.')
  const about = { clientId: client.id, subjectId: input.id }
  await change(actorOf(event), { kind: 'line.written', ...about }, async (tx, unit) => {
    if ((await addLine(tx, signedInAs(event), client.id, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return listLines(db, client.id)
})
