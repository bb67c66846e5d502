import { eraseInput, type Erased } from '../../../../shared/schemas/data'
import { sameName } from '../../../../exchange/incoming'
import { eraseClient } from '../../../exchange/one-client'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'
import { removeTraces } from '../../../jobs/erase'
import { change } from '../../../write/use-change'

/** Erases a client: record, readings, photographs, links, mails and files. The audit log keeps their id and nothing else. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<Erased> => {
  const client = await clientAt(event)
  const { name } = await readJson(event, eraseInput)
  if (sameName(name) !== sameName(client.name)) {
    const message = 'This is not the name on record: nothing was erased.'
    throw failure(422, message, [{ field: 'name', message }])
  }
  const traces = await change(actorOf(event), { kind: 'client.erased', subjectId: client.id }, async (tx, unit) => {
    const gone = await eraseClient(tx, client.id)
    unit.concerns({ clientId: client.id })
    return gone
  })
  return removeTraces([traces])
})
