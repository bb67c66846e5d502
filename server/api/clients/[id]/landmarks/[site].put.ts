import { getRouterParam } from 'h3'
import { z } from 'zod'
import { asSite } from '../../../../../core/sites'
import { useDatabase } from '../../../../db/use-database'
import { readJson } from '../../../../http/body'
import { failure } from '../../../../http/failure'
import { clientAt } from '../../../../http/params'
import { listLandmarks, setLandmark } from '../../../../repositories/landmarks'
import { actorOf } from '../../../../http/actor'
import { defineRoute } from '../../../../http/route'
import { change } from '../../../../write/use-change'

const landmarkInput = z.strictObject({
  note: z.string({ error: 'Please write the landmark down.' }).trim().max(300, 'At most 300 characters.'),
})

/** The client's own landmark at a site; an empty note takes it away. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id } = await clientAt(event)
  const site = asSite(getRouterParam(event, 'site') ?? '')
  if (!site) throw failure(404, 'There is no such site.')
  const { note } = await readJson(event, landmarkInput)
  await change(actorOf(event), { kind: 'landmark.set', clientId: id }, (tx) => setLandmark(tx, id, site, note))
  return listLandmarks(await useDatabase(), id)
})
