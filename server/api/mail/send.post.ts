import type { Mailbox } from '../../../shared/schemas/mail'
import { mailboxOf } from '../../http/mailbox'
import { defineRoute } from '../../http/route'
import { signedInAs } from '../../http/signed-in'
import { remindNow } from '../../jobs/remind-now'

/** Looks for what is due now instead of in some minutes; quiet hours stay quiet. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<Mailbox> => {
  await remindNow()
  return mailboxOf(signedInAs(event))
})
