import type { Mailbox } from '../../../shared/schemas/mail'
import { useDatabase } from '../../db/use-database'
import { signedInAs } from '../../http/signed-in'
import { defineRoute } from '../../http/route'
import { usePorts } from '../../ports'
import { listMails } from '../../repositories/mails'

/** The studio's mailbox: what was written, and whether it has left. */
export default defineRoute({ access: 'lead', proof: 'second' }, async (event): Promise<Mailbox> => {
  const who = signedInAs(event)
  return { real: usePorts().mail.real, mails: await listMails(await useDatabase(), who) }
})
