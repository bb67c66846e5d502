import { getQuery, setResponseStatus } from 'h3'
import { photoQuery, type Photo } from '../../../../shared/schemas/photo'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { parsed } from '../../../http/body'
import { photoBarred } from '../../../../core/safety'
import { todayAt } from '../../../http/days'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { readPhoto, storePhoto } from '../../../http/photo-upload'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { findClient } from '../../../repositories/clients'
import { homePhotoKnown } from '../../../repositories/hand-ins'
import { addPhoto, findPhoto } from '../../../repositories/photos'
import { IdTaken } from '../../../write/same-again'
import { change } from '../../../write/use-change'

/** Takes a photograph of a check-in. Refused without the client's own consent to photographs. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<Photo> => {
  const record = await checkinAt(event)
  const who = signedInAs(event)
  const db = await useDatabase()
  const bytes = await readPhoto(event)
  const query = parsed(photoQuery, getQuery(event))
  const client = await findClient(db, who, record.clientId)
  if (!client?.photoConsentOn) {
    throw failure(409, 'Consent to photographs is not on record. It is asked for apart from consent to be measured.')
  }
  const barred = photoBarred(client, todayAt(event))
  if (barred) throw failure(409, barred)
  await storePhoto(query.id, bytes, async (kept) => {
    const row = { ...query, ...kept, checkinId: record.id }
    const about = { clientId: client.id, checkinId: record.id, subjectId: query.id }
    await change(actorOf(event), { kind: 'photo.added', ...about }, async (tx, unit) => {
      // The id of a photograph from home names other bytes than these.
      if (await homePhotoKnown(tx, query.id)) throw new IdTaken([query.id])
      if ((await addPhoto(tx, who, row)) === 0) unit.unchanged()
    })
  })
  const kept = await findPhoto(db, who, query.id)
  if (!kept) throw failure(409, 'This photograph was taken away before.')
  setResponseStatus(event, 201)
  return kept
})
