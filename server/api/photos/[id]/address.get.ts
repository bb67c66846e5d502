import { photoAt } from '../../../http/params'
import { signedAddress } from '../../../http/signed-picture'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'

/** Where a picture is for this session, for a minute. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  await photoAt(event)
  return signedAddress(event, signedInAs(event).sessionId)
})
