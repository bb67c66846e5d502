import { actorOf } from '../../../http/actor'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { tellStudy } from '../../../http/studies'
import { defineRoute } from '../../../http/route'
import { discardEmptyCheckin } from '../../../repositories/checkins'
import { change } from '../../../write/use-change'

/** Discards a check-in started by mistake: only while nothing has been read or photographed in it. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id: checkinId, clientId, studyId } = await checkinAt(event)
  await change(actorOf(event), { kind: 'checkin.discarded', clientId, checkinId }, async (tx, unit) => {
    if (!(await discardEmptyCheckin(tx, checkinId))) {
      throw failure(409, 'This check-in holds readings or photographs: it can be finished, not thrown away.')
    }
    unit.publish({ kind: 'discarded' })
  })
  if (studyId) tellStudy(event, studyId)
  return { ok: true }
})
