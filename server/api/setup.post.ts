import { v7 as uuid } from 'uuid'
import { setupInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { readJson } from '../http/body'
import { failure } from '../http/failure'
import { hashInTurn, refuseWeak } from '../http/password'
import { deviceOf, openSession, sealSession } from '../http/session-cookie'
import { defineRoute } from '../http/route'
import { createStudio, isEmpty } from '../repositories/staff'
import { change } from '../write/use-change'

/** The first run: makes the studio and its lead coach, once. */
export default defineRoute({ access: 'open' }, async (event) => {
  const taken = failure(409, 'This studio is set up already. Please sign in.')
  if (!(await isEmpty(await useDatabase()))) throw taken
  const { password, ...input } = await readJson(event, setupInput)
  await refuseWeak(password, [input.name, input.email, input.studioName])
  const passwordHash = await hashInTurn(password)
  const ids = { studioId: uuid(), staffId: uuid() }
  const fresh = await change({ kind: 'staff', ...ids }, { kind: 'studio.made' }, async (tx) => {
    if (!(await createStudio(tx, ids, { ...input, passwordHash }))) throw taken
    return openSession(event, tx, ids.staffId, await deviceOf(event, tx, ids))
  })
  await sealSession(event, fresh)
  return { ok: true }
})
