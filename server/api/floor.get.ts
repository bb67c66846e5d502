import { defineEventHandler } from 'h3'
import type { Floor } from '../../shared/schemas/checkin'
import { useDatabase } from '../db/use-database'
import { todayAt, zoneOf } from '../http/days'
import { signedInAs } from '../http/signed-in'
import { backupStatus } from '../jobs/nightly-backup'
import { ownBackups } from '../jobs/own-backups'
import { findFloor } from '../repositories/floor'

const NOTHING: Floor = {
  open: [],
  due: [],
  soon: [],
  finished: [],
  drifts: [],
  events: [],
  week: { bookings: [], absences: [], briefs: [] },
  booked: [],
  handIns: [],
  calipers: [],
}

/** Today. A recorder sees what is being measured, and nobody else. */
export default defineEventHandler(async (event): Promise<Floor> => {
  const who = signedInAs(event)
  const floor = await findFloor(await useDatabase(), who, todayAt(event), zoneOf(event))
  if (who.role === 'recorder') return { ...NOTHING, open: floor.open }
  if (who.role !== 'lead') return floor
  const { missed, last } = await backupStatus(await ownBackups())
  return { ...floor, backupMissed: missed ? { lastAt: last?.at ?? null } : null }
})
