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
  /** What links in mails begin with: set by the installation, or confirmed by a lead; null: mails carry none. */
  address: { configured: string | null; confirmed: string | null }
}

/** Where the studio is reached from outside. */
export const mailAddressInput = z.strictObject({
  address: z
    .string({ error: 'This needs an address.' })
    .trim()
    .transform((text) => text.replace(/\/+$/, '').toLowerCase())
    .refine((text) => /^https?:\/\/[^/\s?#@]{1,200}$/.test(text) && URL.canParse(text), {
      error: 'An address such as https://studio.example, without a path.',
    })
    .nullable(),
})

export const stopMailInput = z.strictObject({
  token: z.string({ error: 'This link is not whole.' }).regex(/^[\w-]{43}$/, 'This link is not whole.'),
})
