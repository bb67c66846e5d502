import { defineEventHandler } from 'h3'
import { ownHomePhotoAt } from '../../../../http/own-home-photo'
import { signedPicture } from '../../../../http/signed-picture'

/** One of the client's own photographs from home, at an address signed a moment ago. */
export default defineEventHandler(async (event) => {
  const { id, sessionId } = await ownHomePhotoAt(event)
  return signedPicture(event, sessionId, id)
})
