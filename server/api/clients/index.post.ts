import { setResponseStatus } from 'h3'
import { newClientInput } from '../../../shared/schemas/client'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { refuseFuture } from '../../http/days'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { addClient } from '../../repositories/clients'
import { change } from '../../write/use-change'

export default defineRoute({ access: 'coach', proof: 'second' }, async (event) => {
  const input = await readJson(event, newClientInput)
  const { birthDate, consentOn, photoConsentOn } = input
  refuseFuture(event, { birthDate, consentOn, photoConsentOn })
  const { client } = await change(actorOf(event), { kind: 'client.added', clientId: input.id }, async (tx, unit) => {
    const stored = await addClient(tx, signedInAs(event), input)
    if (!stored.added) unit.unchanged()
    return stored
  })
  setResponseStatus(event, 201)
  return client
})
