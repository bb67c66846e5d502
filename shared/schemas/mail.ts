import { z } from 'zod'

/** A mail as the studio's mailbox shows it. */
export interface MailRecord {
  id: string
  to: string
  subject: string
  words: string
  at: string
  sentAt: string | null
  tries: number
}

/** The studio's mailbox, and whether mail leaves the house. */
export interface Mailbox {
  /** False: the stand-in; messages lie in a folder and are read here. */
  real: boolean
  mails: MailRecord[]
}

export const stopMailInput = z.strictObject({
  token: z.string({ error: 'This link is not whole.' }).regex(/^[\w-]{43}$/, 'This link is not whole.'),
})
