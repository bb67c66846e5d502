import { setResponseStatus } from 'h3'
import { actorOf } from '../../../http/actor'
import { photoAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'
import { usePorts } from '../../../ports'
import { removePhoto } from '../../../repositories/photos'
import { change } from '../../../write/use-change'

/** Takes a photograph away: its bytes are deleted, the fact that there was one stays. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id, clientId, checkinId } = await photoAt(event)
  const about = { clientId, checkinId, subjectId: id }
  await change(actorOf(event), { kind: 'photo.removed', ...about }, (tx) => removePhoto(tx, id))
  // Bytes whose row says they are gone are swept away later, should this fail.
  await usePorts().photos.remove(id)
  setResponseStatus(event, 204)
  return null
})
