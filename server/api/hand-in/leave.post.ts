import { atLinkOf, clearLink, linkActor } from '../../http/at-link'
import { defineRoute } from '../../http/route'
import { endLinkSession } from '../../repositories/client-links'
import { change } from '../../write/use-change'

/** Signs this phone out of the link. */
export default defineRoute({ access: 'link' }, async (event) => {
  const { sessionId, linkId } = atLinkOf(event)
  await change(linkActor(event), { kind: 'session.ended', subjectId: linkId }, (tx) => endLinkSession(tx, sessionId))
  await clearLink(event)
  return { ok: true }
})
