import type { Floor } from '../../shared/schemas/checkin'
import { useDatabase } from '../db/use-database'
import { asDamage } from '../exchange/backup-checks'
import { todayAt, zoneOf } from '../http/days'
import { signedInAs } from '../http/signed-in'
import { defineRoute } from '../http/route'
import { noteDamage } from '../jobs/note-damage'
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
  suspended: [],
}

/** Today. A recorder sees the open sheets they were called to, and nothing else. */
export default defineRoute({ access: 'recorder', proof: 'second' }, async (event): Promise<Floor> => {
  const who = signedInAs(event)
  const db = await useDatabase()
  if (who.role === 'recorder') return { ...NOTHING, open: await findSheetsOf(db, who) }
  const floor = await findFloor(db, who, todayAt(event), zoneOf(event)).catch((error: unknown) => {
    // Leads have to read of damage where they look first, also when that damage is in the way.
    const damage = who.role === 'lead' && asDamage(error)
    if (!damage) throw error
    noteDamage(damage)
    return { ...NOTHING, damage: damage.message }
  })
  if (who.role !== 'lead') return floor
  const { missed, ahead, last, damage, trial } = await backupStatus(await ownBackups())
  return {
    ...floor,
    backupMissed: missed ? { lastAt: last?.at ?? null, ahead } : null,
    damage: damage?.sentence ?? ('damage' in floor ? floor.damage : null),
    trialFault: trial?.fault ?? null,
  }
})
