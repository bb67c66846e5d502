import { voidInput } from '../../../../shared/schemas/checkin'
import type { ClientHistory } from '../../../../shared/schemas/following'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { tellStudy } from '../../../http/studies'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { voidCheckin } from '../../../repositories/checkins'
import { findClient } from '../../../repositories/clients'
import { findHistory } from '../../../repositories/history'
import { change } from '../../../write/use-change'

/** Voids a check-in with a reason: it counts for nothing any more, its facts stay on record. Answers with the history. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<ClientHistory> => {
  const { id: checkinId, clientId, studyId } = await checkinAt(event)
  const { reason } = await readJson(event, voidInput)
  const who = signedInAs(event)
  await change(actorOf(event), { kind: 'checkin.voided', clientId, checkinId }, async (tx, unit) => {
    await voidCheckin(tx, who, checkinId, reason)
    unit.publish({ kind: 'discarded' })
  })
  if (studyId) tellStudy(event, studyId)
  const db = await useDatabase()
  const client = await findClient(db, who, clientId)
  if (!client) throw failure(404, 'There is no such client.')
  return findHistory(db, who, client)
})
