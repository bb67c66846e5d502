import { retentionDone, type RetentionDue } from '../../../shared/schemas/data'
import { useDatabase } from '../../db/use-database'
import { eraseClient, type ErasedTraces } from '../../exchange/one-client'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { removeTraces } from '../../jobs/erase'
import { findRetention, removeDuePhotos, retentionDue } from '../../repositories/retention'
import { change } from '../../write/use-change'

/** Removes what has fallen due and was shown: these clients as long as they are due still, and old photographs. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<RetentionDue> => {
  const who = signedInAs(event)
  const { clientIds, photos } = await readJson(event, retentionDone)
  const rules = await findRetention(await useDatabase(), who)
  const due = new Set((await retentionDue(await useDatabase(), who, rules)).clients.map(({ id }) => id))
  const traces: ErasedTraces[] = []
  for (const id of clientIds.filter((one) => due.has(one)))
    traces.push(
      await change(actorOf(event), { kind: 'client.erased', clientId: id, subjectId: id }, (tx) => eraseClient(tx, id)),
    )
  const { photoMonths } = rules
  if (photos && photoMonths !== null)
    traces.push({
      photoIds: await change(actorOf(event), { kind: 'retention.done' }, (tx) => removeDuePhotos(tx, who, photoMonths)),
      mailIds: [],
    })
  if (traces.length > 0) await removeTraces(traces)
  return retentionDue(await useDatabase(), who, rules)
})
