import { defineEventHandler } from 'h3'
import { setupInput } from '../../shared/schemas/account'
import { useDatabase } from '../db/use-database'
import { readJson } from '../http/body'
import { failure } from '../http/failure'
import { signIn } from '../http/sign-in'
import { createStudio, isEmpty } from '../repositories/staff'

/** The first run: makes the studio and its lead coach, once. */
export default defineEventHandler(async (event) => {
  const taken = failure(409, 'This studio is set up already. Please sign in.')
  const db = await useDatabase()
  if (!(await isEmpty(db))) throw taken
  const { password, ...input } = await readJson(event, setupInput)
  const staffId = await createStudio(db, { ...input, passwordHash: await hashPassword(password) })
  if (!staffId) throw taken
  await signIn(event, staffId)
  return { ok: true }
})
