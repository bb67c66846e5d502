import { useRuntimeConfig } from 'nitropack/runtime'
import type { Mailbox } from '../../shared/schemas/mail'
import { useDatabase } from '../db/use-database'
import { usePorts } from '../ports'
import { findMailAddress, listMails } from '../repositories/mails'
import type { SignedIn } from '../repositories/staff'

/** The studio's mailbox as its page shows it. */
export async function mailboxOf(who: SignedIn): Promise<Mailbox> {
  const db = await useDatabase()
  return {
    real: usePorts().mail.real,
    mails: await listMails(db, who),
    address: { configured: useRuntimeConfig().address || null, confirmed: await findMailAddress(db, who) },
  }
}
