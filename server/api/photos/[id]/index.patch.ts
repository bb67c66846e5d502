import { alignmentInput, type Photo } from '../../../../shared/schemas/photo'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { photoAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'
import { alignPhoto } from '../../../repositories/photos'
import { change } from '../../../write/use-change'

/** Keeps how a photograph was laid over the others. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event): Promise<Photo> => {
  const { id, clientId, checkinId } = await photoAt(event)
  const alignment = await readJson(event, alignmentInput)
  const about = { clientId, checkinId, subjectId: id }
  await change(actorOf(event), { kind: 'photo.aligned', ...about }, (tx) => alignPhoto(tx, id, alignment))
  return photoAt(event)
})
