import { ownHomePhotoAt } from '../../../../http/own-home-photo'
import { signedPicture } from '../../../../http/signed-picture'
import { defineRoute } from '../../../../http/route'

/** One of the client's own photographs from home, at an address signed a moment ago. */
export default defineRoute({ access: 'link', scope: 'photographs' }, async (event) => {
  const { id, sessionId } = await ownHomePhotoAt(event)
  return signedPicture(event, sessionId, id)
})
