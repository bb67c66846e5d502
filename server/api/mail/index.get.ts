import { defineEventHandler } from 'h3'
import type { Mailbox } from '../../../shared/schemas/mail'
import { useDatabase } from '../../db/use-database'
import { signedInAsLead } from '../../http/signed-in'
import { usePorts } from '../../ports'
import { listMails } from '../../repositories/mails'

/** The studio's mailbox: what was written, and whether it has left. */
export default defineEventHandler(async (event): Promise<Mailbox> => {
  const who = signedInAsLead(event)
  return { real: usePorts().mail.real, mails: await listMails(await useDatabase(), who) }
})
