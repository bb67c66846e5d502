import { mailAddressInput, type Mailbox } from '../../../shared/schemas/mail'
import { actorOf } from '../../http/actor'
import { readJson } from '../../http/body'
import { mailboxOf } from '../../http/mailbox'
import { defineRoute } from '../../http/route'
import { signedInAs } from '../../http/signed-in'
import { setMailAddress } from '../../repositories/mails'
import { change } from '../../write/use-change'

/** Confirms what links in mails begin with. Until then mails carry none; a configured address wins. */
export default defineRoute({ access: 'lead', proof: 'fresh' }, async (event): Promise<Mailbox> => {
  const who = signedInAs(event)
  const { address } = await readJson(event, mailAddressInput)
  await change(actorOf(event), { kind: 'studio.address' }, (tx) => setMailAddress(tx, who, address))
  return mailboxOf(who)
})
