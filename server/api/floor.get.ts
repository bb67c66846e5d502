import type { Floor } from '../../shared/schemas/checkin'
import { useDatabase } from '../db/use-database'
import { todayAt, zoneOf } from '../http/days'
import { signedInAs } from '../http/signed-in'
import { defineRoute } from '../http/route'
import { backupStatus } from '../jobs/nightly-backup'
import { ownBackups } from '../jobs/own-backups'
import { findFloor, findSheetsOf } from '../repositories/floor'

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

/** Today. A recorder sees the open sheets they were called to, and nothing else. */
export default defineRoute({ access: 'recorder', proof: 'second' }, async (event): Promise<Floor> => {
  const who = signedInAs(event)
  const db = await useDatabase()
  if (who.role === 'recorder') return { ...NOTHING, open: await findSheetsOf(db, who) }
  const floor = await findFloor(db, who, todayAt(event), zoneOf(event))
  if (who.role !== 'lead') return floor
  const { missed, ahead, last, damage, trial } = await backupStatus(await ownBackups())
  return {
    ...floor,
    backupMissed: missed ? { lastAt: last?.at ?? null, ahead } : null,
    damage: damage?.sentence ?? null,
    trialFault: trial?.fault ?? null,
  }
})
