import { randomBytes } from 'node:crypto'
import type { DeviceKeyAnswer } from '../../../shared/schemas/device'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { findDeviceKey, keepDeviceKey } from '../../repositories/locks'
import { sealText, unsealText } from '../../sealed/sealed-text'
import { change } from '../../write/use-change'

/** The studio's key that its devices seal with what they keep. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event): Promise<DeviceKeyAnswer> => {
  const who = signedInAs(event)
  const db = await useDatabase()
  const of = `device key of ${who.studioId}`
  const kept =
    (await findDeviceKey(db, who)) ??
    (await change({ kind: 'system', studioId: who.studioId }, { kind: 'device-key.made' }, (tx) =>
      keepDeviceKey(tx, who, sealText(randomBytes(32).toString('base64'), of)),
    ))
  return { key: unsealText(kept, of) }
})
