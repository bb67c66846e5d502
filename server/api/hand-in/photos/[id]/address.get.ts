import { ownHomePhotoAt } from '../../../../http/own-home-photo'
import { signedAddress } from '../../../../http/signed-picture'
import { defineRoute } from '../../../../http/route'

/** Where one of the client's own photographs is for this phone, for a minute. */
export default defineRoute({ access: 'link', scope: 'photographs' }, async (event) =>
  signedAddress(event, (await ownHomePhotoAt(event)).sessionId),
)
