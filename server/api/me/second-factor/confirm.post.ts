import { firstCode, type RecoveryCodes } from '../../../../shared/schemas/account'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { attemptSucceeded, countAttempt } from '../../../http/guessing'
import { codeHashes, newCodes, takeCode } from '../../../http/second-factor'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { confirmSecondFactor, replaceCodes, secondFactorState } from '../../../repositories/second-factors'
import { change } from '../../../write/use-change'

/** The first code from the phone: from now on the second proof counts, and codes on paper are given once. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event): Promise<RecoveryCodes> => {
  const { staffId } = signedInAs(event)
  const { code } = await readJson(event, firstCode)
  const tried = { account: `code of ${staffId}`, real: true, knownDevice: null }
  await countAttempt(event, tried)
  const codes = newCodes()
  const hashes = await codeHashes(staffId, codes)
  await change(actorOf(event), { kind: 'factor.added' }, async (tx) => {
    const message = 'This code is not the one the phone shows now. Is the clock of the phone right?'
    if ((await secondFactorState(tx, staffId)).since !== null) throw failure(409, 'A second proof is on already.')
    if (!(await takeCode(tx, staffId, code))) throw failure(422, message, [{ field: 'code', message }])
    await confirmSecondFactor(tx, staffId)
    await replaceCodes(tx, staffId, hashes)
  })
  await attemptSucceeded(event, tried)
  return { ...(await secondFactorState(await useDatabase(), staffId)), codes }
})
