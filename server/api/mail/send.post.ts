import { defineEventHandler } from 'h3'
import type { Mailbox } from '../../../shared/schemas/mail'
import { useDatabase } from '../../db/use-database'
import { signedInAsLead } from '../../http/signed-in'
import { remindNow } from '../../jobs/remind-now'
import { usePorts } from '../../ports'
import { listMails } from '../../repositories/mails'

/** Looks for what is due now instead of in some minutes; quiet hours stay quiet. */
export default defineEventHandler(async (event): Promise<Mailbox> => {
  const who = signedInAsLead(event)
  await remindNow()
  return { real: usePorts().mail.real, mails: await listMails(await useDatabase(), who) }
})
