import type { MeasuringFacts } from '../../../../shared/schemas/checkin'
import { useDatabase } from '../../../db/use-database'
import { todayAt } from '../../../http/days'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { everyCaliper } from '../../../repositories/calipers'
import { measuresBlind } from '../../../repositories/challenges'
import { listChoices } from '../../../repositories/choices'
import { findLastFinished } from '../../../repositories/checkins'
import { listLandmarks } from '../../../repositories/landmarks'
import { findClient } from '../../../repositories/clients'
import { findTurn } from '../../../repositories/studies'

/** A check-in with its client and the check-in before it: what the measuring screen needs, in one answer. */
export default defineRoute(
  { access: 'recorder', proof: 'second', looked: 'client' },
  async (event): Promise<MeasuringFacts> => {
    const checkin = await checkinAt(event)
    const db = await useDatabase()
    const who = signedInAs(event)
    const client = await findClient(db, who, checkin.clientId)
    if (!client) throw failure(404, 'There is no such client.')
    const isRecorder = who.role === 'recorder'
    const study = checkin.studyId ? await findTurn(db, checkin.id) : null
    return {
      // A recorder writes readings down; what is noted about somebody is not theirs to read.
      client: who.role === 'recorder' ? { ...client, notes: '' } : client,
      checkin,
      // A turn is measured blind, also to what the client's visits said.
      last: study || isRecorder ? null : await findLastFinished(db, who, client.id, checkin.startedAt),
      choices: (await listChoices(db, client.id))[0]?.choices ?? null,
      caliper: (await everyCaliper(db, who)).find(({ id }) => id === checkin.caliperId) ?? null,
      landmarks: await listLandmarks(db, client.id),
      blind: study !== null || (await measuresBlind(db, client.id, todayAt(event))),
      study,
    }
  },
)
