import { eraseInput, type Erased } from '../../../../shared/schemas/data'
import { sameName } from '../../../../exchange/incoming'
import { goneBy, listBackups } from '../../../exchange/backups'
import { eraseClient } from '../../../exchange/one-client'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'
import { backupFolder } from '../../../jobs/use-data'
import { usePorts } from '../../../ports'
import { change } from '../../../write/use-change'

/** Erases a client: record, readings, photographs and links. Only what was done to an id stays on record. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<Erased> => {
  const client = await clientAt(event)
  const { name } = await readJson(event, eraseInput)
  if (sameName(name) !== sameName(client.name)) {
    const message = 'This is not the name on record: nothing was erased.'
    throw failure(422, message, [{ field: 'name', message }])
  }
  const photos = await change(actorOf(event), { kind: 'client.erased', subjectId: client.id }, async (tx, unit) => {
    const gone = await eraseClient(tx, client.id)
    unit.concerns({ clientId: client.id })
    return gone
  })
  for (const id of photos) await usePorts().photos.remove(id)
  const backups = await listBackups(backupFolder())
  return { backups: backups.map((one) => ({ name: one.name, goneBy: goneBy(one) })) }
})
