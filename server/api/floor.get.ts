import { defineEventHandler } from 'h3'
import type { Floor } from '../../shared/schemas/checkin'
import { useDatabase } from '../db/use-database'
import { todayAt } from '../http/days'
import { signedInAs } from '../http/signed-in'
import { findFloor } from '../repositories/floor'

/** Today. A recorder sees what is being measured, and nobody else. */
export default defineEventHandler(async (event): Promise<Floor> => {
  const who = signedInAs(event)
  const floor = await findFloor(await useDatabase(), who, await todayAt(event))
  return who.role === 'recorder' ? { open: floor.open, due: [], soon: [], finished: [] } : floor
})
