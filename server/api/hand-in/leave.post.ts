import { defineEventHandler } from 'h3'
import { atLinkOf, clearLink, linkActor } from '../../http/at-link'
import { endLinkSession } from '../../repositories/client-links'
import { change } from '../../write/use-change'

/** Signs this phone out of the link. */
export default defineEventHandler(async (event) => {
  const { sessionId, linkId } = atLinkOf(event)
  await change(linkActor(event), { kind: 'session.ended', subjectId: linkId }, (tx) => endLinkSession(tx, sessionId))
  await clearLink(event)
  return { ok: true }
})
