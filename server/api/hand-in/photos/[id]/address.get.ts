import { defineEventHandler } from 'h3'
import { ownHomePhotoAt } from '../../../../http/own-home-photo'
import { signedAddress } from '../../../../http/signed-picture'

/** Where one of the client's own photographs is for this phone, for a minute. */
export default defineEventHandler(async (event) => signedAddress(event, (await ownHomePhotoAt(event)).sessionId))
