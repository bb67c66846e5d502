import { photoAt } from '../../../http/params'
import { signedPicture } from '../../../http/signed-picture'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'

/** The picture itself, for people of this studio only, at an address signed a moment ago. */
export default defineRoute({ access: 'coach', proof: 'second', looked: 'photo' }, async (event) => {
  const photo = await photoAt(event)
  const bytes = await signedPicture(event, signedInAs(event).sessionId, photo.id)
  return bytes
})
