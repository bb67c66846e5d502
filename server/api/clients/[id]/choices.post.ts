import { findEquation } from '../../../../core/equations'
import { choiceInput, type RecordedChoice } from '../../../../shared/schemas/following'
import { actorOf } from '../../../http/actor'
import { useDatabase } from '../../../db/use-database'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { addChoice, listChoices } from '../../../repositories/choices'
import { change } from '../../../write/use-change'

/** Records which equation and conversion this client is followed with; answers with all choices, newest first. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<RecordedChoice[]> => {
  const client = await clientAt(event)
  const input = await readJson(event, choiceInput)
  if (input.equationId !== null && !findEquation(input.equationId)) {
    const message = 'This equation is not known.'
    throw failure(422, message, [{ field: 'equationId', message }])
  }
  const about = { clientId: client.id, subjectId: input.id }
  await change(actorOf(event), { kind: 'choice.added', ...about }, async (tx, unit) => {
    if ((await addChoice(tx, signedInAs(event), client.id, input)) === 0) unit.unchanged()
  })
  return listChoices(await useDatabase(), client.id)
})
