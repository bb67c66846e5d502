import type { PrepareFacts } from '../../../../shared/schemas/checkin'
import { useDatabase } from '../../../db/use-database'
import { todayAt } from '../../../http/days'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { listCalipers } from '../../../repositories/calipers'
import { measuresBlind } from '../../../repositories/challenges'
import { listChoices } from '../../../repositories/choices'
import { findLastFinished, findOpen } from '../../../repositories/checkins'
import { listLandmarks } from '../../../repositories/landmarks'
import { listStaff } from '../../../repositories/staff'

/** What the screen before measuring needs, in one answer. */
export default defineRoute(
  { access: 'coach', proof: 'second', looked: 'client' },
  async (event): Promise<PrepareFacts> => {
    const client = await clientAt(event)
    const db = await useDatabase()
    const who = signedInAs(event)
    return {
      client,
      last: await findLastFinished(db, who, client.id, new Date(Date.now() + 60_000).toISOString()),
      openCheckinId: await findOpen(db, client.id),
      choices: (await listChoices(db, client.id))[0]?.choices ?? null,
      calipers: await listCalipers(db, who),
      staff: await listStaff(db, who),
      landmarks: await listLandmarks(db, client.id),
      blind: await measuresBlind(db, client.id, todayAt(event)),
    }
  },
)
