import { defineEventHandler } from 'h3'
import { noteLook } from '../../../http/looked'
import { photoAt } from '../../../http/params'
import { signedPicture } from '../../../http/signed-picture'
import { signedInAs } from '../../../http/signed-in'

/** The picture itself, for people of this studio only, at an address signed a moment ago. */
export default defineEventHandler(async (event) => {
  const photo = await photoAt(event)
  const bytes = await signedPicture(event, signedInAs(event).sessionId, photo.id)
  await noteLook(event, 'photo.seen', photo.clientId)
  return bytes
})
