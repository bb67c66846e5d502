import type { H3Event } from 'h3'
import { useDatabase } from '../db/use-database'
import { findLink, type FoundLink } from '../repositories/client-links'
import { LINK_SENTENCES } from './at-link'
import { failure } from './failure'
import { countAttempt } from './guessing'
import { hashOf } from './tokens'

/** The link a token opens. Throws with the reason when it does not work. */
export async function linkOfToken(event: H3Event, token: string): Promise<FoundLink> {
  const link = await findLink(await useDatabase(), hashOf(token))
  if (!link) {
    await countAttempt(event, { account: 'client links', real: false, knownDevice: null })
    throw failure(404, LINK_SENTENCES.unknown)
  }
  if (link.state !== 'works') throw failure(410, LINK_SENTENCES[link.state])
  return link
}
