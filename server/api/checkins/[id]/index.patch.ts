import { checkinChange } from '../../../../shared/schemas/checkin'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { checkinAt } from '../../../http/params'
import { refuseUnknownRecorder } from '../../../http/recorder'
import { tellStudy } from '../../../http/studies'
import { defineRoute } from '../../../http/route'
import { annotateCheckin, callRecorder, changeSet, finishCheckin } from '../../../repositories/checkins'
import { change } from '../../../write/use-change'

/** Finishes a check-in or writes at it. Only what is named changes, by what stands there when it is stored. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id: checkinId, clientId, studyId } = await checkinAt(event)
  const { finished, protocolId, recorderId, ...words } = await readJson(event, checkinChange)
  if (recorderId) await refuseUnknownRecorder(event, recorderId)
  const kind = finished ? 'checkin.finished' : 'checkin.changed'
  await change(actorOf(event), { kind, clientId, checkinId }, async (tx, unit) => {
    if (finished && !(await finishCheckin(tx, checkinId, new Date().toISOString()))) {
      throw failure(409, 'There is nothing in this check-in to finish.')
    }
    if (protocolId && studyId) throw failure(409, 'A study asks everyone for the same sites.')
    if (protocolId && !(await changeSet(tx, checkinId, protocolId))) {
      throw failure(409, 'This check-in is finished: its set of sites stays.')
    }
    if (recorderId !== undefined && !(await callRecorder(tx, checkinId, recorderId))) {
      throw failure(409, 'This check-in is finished: nobody can be called to it.')
    }
    if (Object.keys(words).length > 0) await annotateCheckin(tx, checkinId, words)
    else if (!finished && !protocolId && recorderId === undefined) return unit.unchanged()
    unit.publish({ kind: 'changed' })
  })
  if (studyId) tellStudy(event, studyId)
  return checkinAt(event)
})
