import { actorOf } from '../../../http/actor'
import { todayAt } from '../../../http/days'
import { failure } from '../../../http/failure'
import { studyAt, studyRecord, tellStudy } from '../../../http/studies'
import { defineRoute } from '../../../http/route'
import { closeStudy, holdStudy } from '../../../repositories/studies'
import { change } from '../../../write/use-change'

/** Closes a study: what it says is shown, and feeds the error model from today on. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id, group, kind, people, pens, turns } = await studyAt(event)
  const wanted = people.length * (kind === 'repeat' ? 2 : pens.length)
  const done = turns.filter(({ finished }) => finished).length
  if (done === 0) throw failure(409, 'Nothing has been measured in it yet.')
  if (turns.some(({ finished }) => !finished)) throw failure(409, 'A turn is still under way.')
  if (group && done < wanted)
    throw failure(409, `${wanted - done} turns are still to come: it is shown once all are done.`)
  const today = todayAt(event)
  await change(actorOf(event), { kind: 'study.closed', subjectId: id }, async (tx, unit) => {
    await holdStudy(tx, id)
    if (!(await closeStudy(tx, id, today))) unit.unchanged()
  })
  tellStudy(event, id)
  return studyRecord(event)
})
