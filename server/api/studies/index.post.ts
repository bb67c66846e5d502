import { setResponseStatus } from 'h3'
import { studyInput } from '../../../shared/schemas/study'
import { useDatabase } from '../../db/use-database'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { refuseFuture } from '../../http/days'
import { failure } from '../../http/failure'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { listCalipers } from '../../repositories/calipers'
import { listStaff } from '../../repositories/staff'
import { addStudy, listStudies } from '../../repositories/studies'
import { change } from '../../write/use-change'

/** Sets a study up. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const who = signedInAs(event)
  const input = await readJson(event, studyInput)
  const db = await useDatabase()
  const known = new Set([...(await listStaff(db, who)), ...(await listCalipers(db, who))].map(({ id }) => id))
  if (input.pens.some(({ staffId, caliperId }) => !known.has(staffId ?? caliperId ?? '')))
    throw failure(422, 'Somebody who measures is not of this studio.', [
      { field: 'pens', message: 'Somebody who measures is not of this studio.' },
    ])
  for (const { agreedOn } of input.pens) refuseFuture(event, { pens: agreedOn })
  await change(actorOf(event), { kind: 'study.made', subjectId: input.id }, async (tx, unit) => {
    if ((await addStudy(tx, who, input)) === 0) unit.unchanged()
  })
  setResponseStatus(event, 201)
  return listStudies(db, who)
})
