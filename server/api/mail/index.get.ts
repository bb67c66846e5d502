import type { Mailbox } from '../../../shared/schemas/mail'
import { mailboxOf } from '../../http/mailbox'
import { defineRoute } from '../../http/route'
import { signedInAs } from '../../http/signed-in'

/** The studio's mailbox: what was written, and whether it has left. */
export default defineRoute({ access: 'lead', proof: 'second' }, (event): Promise<Mailbox> =>
  mailboxOf(signedInAs(event)),
)
