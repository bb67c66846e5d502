import { defineEventHandler, getQuery, setResponseStatus } from 'h3'
import { photoQuery, type Photo } from '../../../../shared/schemas/photo'
import { useDatabase } from '../../../db/use-database'
import { parsed, readBytes } from '../../../http/body'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { photoKey, photoStorage } from '../../../http/photo-storage'
import { keptPicture, PHOTO_LIMIT } from '../../../http/picture'
import { signedInAs } from '../../../http/signed-in'
import { findClient } from '../../../repositories/clients'
import { addPhoto, findPhoto } from '../../../repositories/photos'

/** Takes a photograph of a check-in. Refused without the client's own consent to photographs. */
export default defineEventHandler(async (event): Promise<Photo> => {
  const record = await checkinAt(event)
  const who = signedInAs(event)
  const db = await useDatabase()
  const bytes = await readBytes(event, PHOTO_LIMIT, 'A photograph has at most 25 MB: please choose a smaller one.')
  const query = parsed(photoQuery, getQuery(event))
  const client = await findClient(db, who, record.clientId)
  if (!client?.photoConsentOn) {
    throw failure(409, 'Consent to photographs is not on record. It is asked for apart from consent to be measured.')
  }
  const sent = await findPhoto(db, who, query.id)
  if (sent) return sent
  const picture = await keptPicture(bytes)
  const facts = {
    ...query,
    checkinId: record.id,
    width: picture.width,
    height: picture.height,
    byteLength: picture.bytes.length,
  }
  await addPhoto(db, who, facts, () => photoStorage().setItemRaw(photoKey(query.id), picture.bytes))
  const kept = await findPhoto(db, who, query.id)
  if (!kept) throw failure(409, 'This id is taken.', [{ field: 'id', message: 'This id is taken.' }])
  setResponseStatus(event, 201)
  return kept
})
