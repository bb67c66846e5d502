import { createHmac, timingSafeEqual } from 'node:crypto'
import { addSeconds } from 'date-fns'
import { getQuery, getRequestURL, setHeader, type H3Event } from 'h3'
import { useRuntimeConfig } from 'nitropack/runtime'
import { z } from 'zod'
import type { PictureAddress } from '../../shared/schemas/photo'
import { usePorts } from '../ports'
import { failure } from './failure'

/** An address of a picture holds for so long, seconds: as long as a page needs to show it. */
const LASTS_SECONDS = 60

const signedQuery = z.object({
  until: z.string().regex(/^\d{13}$/),
  signed: z.string().regex(/^[\w-]{43}$/),
})

/** Signed with the secret that sessions are sealed with, for this use alone. */
function signatureOf(path: string, sessionId: string, until: string): string {
  const key = createHmac('sha256', useRuntimeConfig().session.password).update('oak-pinch pictures').digest()
  return createHmac('sha256', key).update(`${path}\n${sessionId}\n${until}`).digest('base64url')
}

/** Where a picture is for one session, for a minute. Asked for at the picture's own address and "/address". */
export function signedAddress(event: H3Event, sessionId: string, now = new Date()): PictureAddress {
  const path = getRequestURL(event).pathname.replace(/\/address$/, '')
  const until = String(addSeconds(now, LASTS_SECONDS).getTime())
  return { address: `${path}?until=${until}&signed=${signatureOf(path, sessionId, until)}` }
}

/**
 * The picture itself, to whom its address was signed for. Never kept by the browser or anything between.
 * Throws 403 for an address that has run out, or was another session's; 404 where the bytes are missing.
 */
export async function signedPicture(event: H3Event, sessionId: string, photoId: string): Promise<Buffer> {
  const query = signedQuery.safeParse(getQuery(event))
  const path = getRequestURL(event).pathname
  const made = query.success ? signatureOf(path, sessionId, query.data.until) : ''
  const isOurs = query.success && timingSafeEqual(Buffer.from(made), Buffer.from(query.data.signed))
  if (!isOurs || Number(query.data.until) < Date.now())
    throw failure(403, 'This address of a photograph has run out. Please open the page anew.')
  const bytes = await usePorts().photos.get(photoId)
  if (!bytes) throw failure(404, 'This photograph is missing from the storage.')
  setHeader(event, 'content-type', 'image/jpeg')
  setHeader(event, 'cache-control', 'private, no-store')
  return bytes
}
