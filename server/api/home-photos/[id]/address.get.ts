import { homePhotoAt } from '../../../http/params'
import { signedAddress } from '../../../http/signed-picture'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'

/** Where a photograph from home is for this session, for a minute. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  await homePhotoAt(event)
  return signedAddress(event, signedInAs(event).sessionId)
})
