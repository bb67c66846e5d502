import { defineEventHandler, setHeader } from 'h3'
import { failure } from '../../../http/failure'
import { noteLook } from '../../../http/looked'
import { homePhotoAt } from '../../../http/params'
import { usePorts } from '../../../ports'

/** A photograph from home, for people of this studio only. */
export default defineEventHandler(async (event) => {
  const photo = await homePhotoAt(event)
  await noteLook(event, 'photo.seen', photo.clientId)
  const bytes = await usePorts().photos.get(photo.id)
  if (!bytes) throw failure(404, 'This photograph is missing from the storage.')
  setHeader(event, 'content-type', 'image/jpeg')
  setHeader(event, 'cache-control', 'private, no-store')
  return bytes
})
