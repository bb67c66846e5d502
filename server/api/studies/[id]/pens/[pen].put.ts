import { agreementInput } from '../../../../../shared/schemas/study'
import { actorOf } from '../../../../http/actor'
import { readJson } from '../../../../http/body'
import { refuseFuture } from '../../../../http/days'
import { failure } from '../../../../http/failure'
import { idParam } from '../../../../http/params'
import { openStudyAt, studyRecord, tellStudy } from '../../../../http/studies'
import { defineRoute } from '../../../../http/route'
import { noteAgreement } from '../../../../repositories/studies'
import { change } from '../../../../write/use-change'

/** Notes the day an assessor agreed to be compared. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id } = await openStudyAt(event)
  const penId = idParam(event, 'Nobody of this study.', 'pen')
  const { agreedOn } = await readJson(event, agreementInput)
  refuseFuture(event, { agreedOn })
  await change(actorOf(event), { kind: 'study.agreed', subjectId: id }, async (tx) => {
    if (!(await noteAgreement(tx, id, penId, agreedOn))) throw failure(404, 'Nobody of this study.')
  })
  tellStudy(event, id)
  return studyRecord(event)
})
