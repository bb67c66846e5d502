import { getQuery, setResponseStatus } from 'h3'
import { homePhotoQuery } from '../../../shared/schemas/link'
import { useDatabase } from '../../db/use-database'
import { atLinkOf, linkActor, ownRecord } from '../../http/at-link'
import { parsed } from '../../http/body'
import { homePhotoBarred } from '../../../core/safety'
import { failure } from '../../http/failure'
import { todayAtLink } from '../../http/own-home'
import { readPhoto, storePhoto } from '../../http/photo-upload'
import { defineRoute } from '../../http/route'
import { addHomePhoto, isOwnHandIn } from '../../repositories/hand-ins'
import { photoIdKnown } from '../../repositories/photos'
import { IdTaken } from '../../write/same-again'
import { change } from '../../write/use-change'

/** Takes a photograph of a week that is here. Refused without the client's consent to photographs. */
export default defineRoute({ access: 'link', scope: 'photographs' }, async (event) => {
  const { clientId } = atLinkOf(event)
  const client = await ownRecord(event)
  const bytes = await readPhoto(event)
  const { handInId, ...query } = parsed(homePhotoQuery, getQuery(event))
  const db = await useDatabase()
  if (!client.photoConsentOn)
    throw failure(409, 'You have not agreed to photographs. Please talk to your coach; it is never a condition.')
  const barred = homePhotoBarred(client, await todayAtLink(event))
  if (barred) throw failure(409, `${barred} Please talk to your coach.`)
  if (!(await isOwnHandIn(db, clientId, handInId))) throw failure(404, 'There is no such week of yours.')
  await storePhoto(query.id, bytes, async (kept) => {
    const row = { ...query, ...kept, handInId }
    await change(linkActor(event), { kind: 'handin.photo', clientId, subjectId: query.id }, async (tx, unit) => {
      // The id of a photograph taken in the studio names other bytes than these.
      if (await photoIdKnown(tx, query.id)) throw new IdTaken([query.id])
      if ((await addHomePhoto(tx, row)) === 0) unit.unchanged()
    })
  })
  setResponseStatus(event, 201)
  return { ok: true }
})
