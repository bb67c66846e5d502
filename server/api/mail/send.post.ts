import type { Mailbox } from '../../../shared/schemas/mail'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { remindNow } from '../../jobs/remind-now'
import { usePorts } from '../../ports'
import { listMails } from '../../repositories/mails'

/** Looks for what is due now instead of in some minutes; quiet hours stay quiet. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<Mailbox> => {
  const who = signedInAs(event)
  await remindNow()
  return { real: usePorts().mail.real, mails: await listMails(await useDatabase(), who) }
})
