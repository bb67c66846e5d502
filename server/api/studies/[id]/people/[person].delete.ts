import { actorOf } from '../../../../http/actor'
import { failure } from '../../../../http/failure'
import { idParam } from '../../../../http/params'
import { openStudyAt, studyRecord, tellStudy } from '../../../../http/studies'
import { defineRoute } from '../../../../http/route'
import { dropStudyPerson, holdStudy } from '../../../../repositories/studies'
import { change } from '../../../../write/use-change'

/** Takes somebody out again who has not been measured in it. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id } = await openStudyAt(event)
  const personId = idParam(event, 'Nobody of this study.', 'person')
  await change(actorOf(event), { kind: 'study.person', subjectId: id }, async (tx) => {
    await holdStudy(tx, id)
    if (!(await dropStudyPerson(tx, id, personId)))
      throw failure(409, 'Who has been measured stays in the study; void the turn if it does not count.')
  })
  tellStudy(event, id)
  return studyRecord(event)
})
