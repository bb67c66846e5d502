import { leaveChallengeInput, type ClientHome } from '../../../shared/schemas/link'
import { atLinkOf, linkActor, ownRecord } from '../../http/at-link'
import { readJson } from '../../http/body'
import { failure } from '../../http/failure'
import { ownHome } from '../../http/own-home'
import { defineRoute } from '../../http/route'
import { leaveOwnChallenge } from '../../repositories/challenges'
import { change } from '../../write/use-change'

/** Leaves a challenge: one press, silently. */
export default defineRoute({ access: 'link' }, async (event): Promise<ClientHome> => {
  const { clientId } = atLinkOf(event)
  const { entryId } = await readJson(event, leaveChallengeInput)
  await change(linkActor(event), { kind: 'challenge.left', clientId, subjectId: entryId }, async (tx) => {
    if (!(await leaveOwnChallenge(tx, clientId, entryId))) throw failure(404, 'You do not take part in this.')
  })
  return ownHome(event, await ownRecord(event))
})
