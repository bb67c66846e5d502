import { actorOf } from '../../../http/actor'
import { homePhotoAt } from '../../../http/params'
import { defineRoute } from '../../../http/route'
import { usePorts } from '../../../ports'
import { removeHomePhoto } from '../../../repositories/hand-ins'
import { change } from '../../../write/use-change'

/** Takes a photograph from home away: its bytes go, the fact that it was taken stays. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const photo = await homePhotoAt(event)
  const about = { clientId: photo.clientId, subjectId: photo.id }
  await change(actorOf(event), { kind: 'handin.photo-removed', ...about }, (tx) => removeHomePhoto(tx, photo.id))
  await usePorts().photos.remove(photo.id)
  return { ok: true }
})
