import { defineEventHandler } from 'h3'
import { noteLook } from '../../../http/looked'
import { homePhotoAt } from '../../../http/params'
import { signedPicture } from '../../../http/signed-picture'
import { signedInAs } from '../../../http/signed-in'

/** A photograph from home, for people of this studio only, at an address signed a moment ago. */
export default defineEventHandler(async (event) => {
  const photo = await homePhotoAt(event)
  const bytes = await signedPicture(event, signedInAs(event).sessionId, photo.id)
  await noteLook(event, 'photo.seen', photo.clientId)
  return bytes
})
