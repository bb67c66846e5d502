import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { keepsSecond } from '../../../http/second-factor'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { listPasskeys, removePasskey } from '../../../repositories/passkeys'
import { change } from '../../../write/use-change'

/** Takes one of one's own passkeys away. */
export default defineRoute({ access: 'recorder', proof: 'fresh' }, async (event) => {
  const { staffId, studioId } = signedInAs(event)
  const sentence = 'There is no such passkey.'
  const id = idParam(event, sentence)
  await change(actorOf(event), { kind: 'passkey.removed' }, async (tx) => {
    if (!(await removePasskey(tx, staffId, id))) throw failure(404, sentence)
    await keepsSecond(tx, { staffId, studioId })
  })
  return listPasskeys(await useDatabase(), staffId)
})
