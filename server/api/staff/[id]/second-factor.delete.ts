import { actorOf } from '../../../http/actor'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { removeSecondFactor } from '../../../repositories/second-factors'
import { endSessions } from '../../../repositories/sessions'
import { change } from '../../../write/use-change'

/** Takes code and passkeys of somebody away who has lost phone and paper. They are signed out everywhere. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event) => {
  const who = signedInAs(event)
  const sentence = 'There is no such person with a second proof.'
  const staffId = idParam(event, sentence)
  await change(actorOf(event), { kind: 'factor.removed', subjectId: staffId }, async (tx, unit) => {
    const { code, passkeys } = await removeSecondFactor(tx, who, staffId)
    if (!code && passkeys === 0) throw failure(404, sentence)
    unit.endSessions(await endSessions(tx, staffId, { but: null }))
  })
  return { ok: true }
})
