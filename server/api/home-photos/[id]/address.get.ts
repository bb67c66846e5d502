import { defineEventHandler } from 'h3'
import { homePhotoAt } from '../../../http/params'
import { signedAddress } from '../../../http/signed-picture'
import { signedInAs } from '../../../http/signed-in'

/** Where a photograph from home is for this session, for a minute. */
export default defineEventHandler(async (event) => {
  await homePhotoAt(event)
  return signedAddress(event, signedInAs(event).sessionId)
})
