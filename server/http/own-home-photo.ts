import type { H3Event } from 'h3'
import { useDatabase } from '../db/use-database'
import { findHomePhoto } from '../repositories/hand-ins'
import { atLinkOf } from './at-link'
import { failure } from './failure'
import { idParam } from './params'

/** One of a client's own photographs from home, and the session of their phone. Throws 404 for any other. */
export async function ownHomePhotoAt(event: H3Event): Promise<{ id: string; sessionId: string }> {
  const { clientId, studioId, sessionId } = atLinkOf(event)
  const sentence = 'There is no such photograph of yours.'
  const photo = await findHomePhoto(await useDatabase(), { studioId }, idParam(event, sentence))
  if (photo?.clientId !== clientId) throw failure(404, sentence)
  return { id: photo.id, sessionId }
}
