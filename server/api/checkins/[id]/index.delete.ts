import { defineEventHandler } from 'h3'
import { useDatabase } from '../../../db/use-database'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { discardEmptyCheckin } from '../../../repositories/checkins'

/** Discards a check-in started by mistake: only while nothing has been read in it. */
export default defineEventHandler(async (event) => {
  const { id } = await checkinAt(event)
  if (!(await discardEmptyCheckin(await useDatabase(), id))) {
    throw failure(409, 'This check-in holds readings: it can be finished, not thrown away.')
  }
  return { ok: true }
})
