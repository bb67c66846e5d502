import { defineEventHandler, setResponseStatus } from 'h3'
import { useDatabase } from '../../../db/use-database'
import { photoAt } from '../../../http/params'
import { photoKey, photoStorage } from '../../../http/photo-storage'
import { removePhoto } from '../../../repositories/photos'

/** Takes a photograph away: its bytes are deleted, the fact that there was one stays. */
export default defineEventHandler(async (event) => {
  const photo = await photoAt(event)
  await photoStorage().removeItem(photoKey(photo.id))
  await removePhoto(await useDatabase(), photo.id)
  setResponseStatus(event, 204)
  return null
})
