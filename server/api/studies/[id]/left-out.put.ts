import { leaveOutInput } from '../../../../shared/schemas/study'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { studyAt, studyRecord, tellStudy } from '../../../http/studies'
import { defineRoute } from '../../../http/route'
import { leaveStudyOut } from '../../../repositories/studies'
import { change } from '../../../write/use-change'

/** Leaves a closed study out of the error model with a reason, or takes it in again. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event) => {
  const { id, closedOn } = await studyAt(event)
  const { reason } = await readJson(event, leaveOutInput)
  if (!closedOn) throw failure(409, 'Only what is closed counts in the error model.')
  await change(actorOf(event), { kind: reason === null ? 'study.taken-in' : 'study.left-out', subjectId: id }, (tx) =>
    leaveStudyOut(tx, id, reason),
  )
  tellStudy(event, id)
  return studyRecord(event)
})
