import { defineEventHandler, setHeader } from 'h3'
import { useDatabase } from '../../../db/use-database'
import { atLinkOf } from '../../../http/at-link'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { usePorts } from '../../../ports'
import { findHomePhoto } from '../../../repositories/hand-ins'

/** One of the client's own photographs from home. */
export default defineEventHandler(async (event) => {
  const { clientId, studioId } = atLinkOf(event, 'photographs')
  const sentence = 'There is no such photograph of yours.'
  const photo = await findHomePhoto(await useDatabase(), { studioId }, idParam(event, sentence))
  const bytes = photo?.clientId === clientId ? await usePorts().photos.get(photo.id) : null
  if (!bytes) throw failure(404, sentence)
  setHeader(event, 'content-type', 'image/jpeg')
  setHeader(event, 'cache-control', 'private, no-store')
  return bytes
})
