import { clientChange } from '../../../../shared/schemas/client'
import { actorOf } from '../../../http/actor'
import { readJson } from '../../../http/body'
import { refuseFuture } from '../../../http/days'
import { conflict } from '../../../http/failure'
import { clientAt } from '../../../http/params'
import { signedInAs } from '../../../http/signed-in'
import { defineRoute } from '../../../http/route'
import { archiveClient, changeClient, RecordChanged } from '../../../repositories/clients'
import { change } from '../../../write/use-change'

/** Changes a client's record, on the version the change was made on; an older one is answered with what stands there now. */
export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const { id: clientId } = await clientAt(event)
  const wanted = await readJson(event, clientChange)
  const who = signedInAs(event)
  try {
    if ('archived' in wanted) {
      const kind = wanted.archived ? 'client.archived' : 'client.restored'
      await change(actorOf(event), { kind, clientId }, (tx) => archiveClient(tx, who, clientId, wanted.archived))
    } else {
      const { birthDate, consentOn, photoConsentOn } = wanted
      refuseFuture(event, { birthDate, consentOn, photoConsentOn })
      await change(actorOf(event), { kind: 'client.changed', clientId }, (tx) =>
        changeClient(tx, who, clientId, wanted),
      )
    }
  } catch (error) {
    if (error instanceof RecordChanged) throw conflict(error.message, error.stored)
    throw error
  }
  return clientAt(event)
})
