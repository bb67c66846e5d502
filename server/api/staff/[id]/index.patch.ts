import { staffChange } from '../../../../shared/schemas/account'
import { useDatabase } from '../../../db/use-database'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { failure } from '../../../http/failure'
import { idParam } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { endSessions } from '../../../repositories/sessions'
import { changeStaff, LastLead, listEverybody } from '../../../repositories/staff'
import { change } from '../../../write/use-change'

/** Changes what a person may do, or closes and opens their account; what they had open by their old right ends at once. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event) => {
  const who = signedInAs(event)
  const sentence = 'There is no such person here.'
  const id = idParam(event, sentence)
  const wanted = await readJson(event, staffChange)
  const kind = 'role' in wanted ? 'staff.role' : wanted.active ? 'staff.reactivated' : 'staff.deactivated'
  try {
    await change(actorOf(event), { kind, subjectId: id }, async (tx, unit) => {
      if (!(await changeStaff(tx, who, id, wanted))) throw failure(404, sentence)
      if ('active' in wanted && !wanted.active) unit.endSessions(await endSessions(tx, id, { but: null }))
    })
  } catch (error) {
    if (error instanceof LastLead) throw failure(409, error.message)
    throw error
  }
  return listEverybody(await useDatabase(), who)
})
