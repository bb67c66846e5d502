import type { RecoveryCodes } from '../../../../shared/schemas/account'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { failure } from '../../../http/failure'
import { codeHashes, newCodes } from '../../../http/second-factor'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { replaceCodes, secondFactorState } from '../../../repositories/second-factors'
import { change } from '../../../write/use-change'

/** New codes on paper; those before work no more. */
export default defineRoute(
  { access: 'recorder', proof: 'fresh', beforeSecond: true },
  async (event): Promise<RecoveryCodes> => {
    const { staffId } = signedInAs(event)
    const codes = newCodes()
    const hashes = await codeHashes(staffId, codes)
    await change(actorOf(event), { kind: 'factor.codes' }, async (tx) => {
      if ((await secondFactorState(tx, staffId)).since === null) throw failure(409, 'There is no second proof yet.')
      await replaceCodes(tx, staffId, hashes)
    })
    return { ...(await secondFactorState(await useDatabase(), staffId)), codes }
  },
)
