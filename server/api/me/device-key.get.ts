import { randomBytes } from 'node:crypto'
import type { DeviceKeyAnswer } from '../../../shared/schemas/device'
import { useDatabase } from '../../db/use-database'
import { pinCheck } from '../../http/pin'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { findDeviceKey, findPin, keepDeviceKey } from '../../repositories/locks'
import { sealText, unsealText } from '../../sealed/sealed-text'
import { change } from '../../write/use-change'

/** The studio's key for what waits on its devices, and what one's own PIN is checked against where there is no network. */
export default defineRoute({ access: 'recorder', proof: 'none' }, async (event): Promise<DeviceKeyAnswer> => {
  const who = signedInAs(event)
  const db = await useDatabase()
  const of = `device key of ${who.studioId}`
  const kept =
    (await findDeviceKey(db, who)) ??
    (await change({ kind: 'system', studioId: who.studioId }, { kind: 'device-key.made' }, (tx) =>
      keepDeviceKey(tx, who, sealText(randomBytes(32).toString('base64'), of)),
    ))
  const secret = await findPin(db, who.staffId)
  return { key: unsealText(kept, of), pin: secret === null ? null : pinCheck(who.staffId, secret) }
})
