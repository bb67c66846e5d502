import { defineEventHandler } from 'h3'
import { photoAt } from '../../../http/params'
import { signedAddress } from '../../../http/signed-picture'
import { signedInAs } from '../../../http/signed-in'

/** Where a picture is for this session, for a minute. */
export default defineEventHandler(async (event) => {
  await photoAt(event)
  return signedAddress(event, signedInAs(event).sessionId)
})
