import { createHash } from 'node:crypto'
import { defineEventHandler, getHeader, getQuery, setResponseStatus } from 'h3'
import pLimit from 'p-limit'
import { photoQuery, type Photo } from '../../../../shared/schemas/photo'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { parsed, readBytes } from '../../../http/body'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { keptPicture, PHOTO_LIMIT } from '../../../http/picture'
import { signedInAs } from '../../../http/signed-in'
import { usePorts } from '../../../ports'
import { findClient } from '../../../repositories/clients'
import { addPhoto, findPhoto, photoIdKnown } from '../../../repositories/photos'
import { change } from '../../../write/use-change'

/** A large picture takes some hundred megabytes while it is read: one at a time. */
const turn = pLimit(1)

/** Takes a photograph of a check-in. Refused without the client's own consent to photographs. */
export default defineEventHandler(async (event): Promise<Photo> => {
  const record = await checkinAt(event)
  const who = signedInAs(event)
  const db = await useDatabase()
  if (!/^(application\/octet-stream|image\/[\w.+-]+)$/i.test(getHeader(event, 'content-type') ?? '')) {
    throw failure(415, 'A photograph comes as a picture (content-type image/jpeg or alike).')
  }
  const bytes = await readBytes(event, PHOTO_LIMIT, 'A photograph has at most 25 MB: please choose a smaller one.')
  const query = parsed(photoQuery, getQuery(event))
  const client = await findClient(db, who, record.clientId)
  if (!client?.photoConsentOn) {
    throw failure(409, 'Consent to photographs is not on record. It is asked for apart from consent to be measured.')
  }
  await turn(async () => {
    const picture = await keptPicture(bytes)
    // Bytes first, under the id of the row to come: a row without its picture is never seen, a picture without its row is
    // swept away. An id that is taken keeps its own.
    if (!(await photoIdKnown(db, query.id))) await usePorts().photos.put(query.id, picture.bytes)
    const { width, height } = picture
    const digest = createHash('sha256').update(picture.bytes).digest('hex')
    const row = { ...query, checkinId: record.id, width, height, byteLength: picture.bytes.length, digest }
    const about = { clientId: client.id, checkinId: record.id, subjectId: query.id }
    await change(actorOf(event), { kind: 'photo.added', ...about }, async (tx, unit) => {
      if ((await addPhoto(tx, who, row)) === 0) unit.unchanged()
    })
  })
  const kept = await findPhoto(db, who, query.id)
  if (!kept) throw failure(409, 'This photograph was taken away before.')
  setResponseStatus(event, 201)
  return kept
})
