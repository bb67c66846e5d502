import { z } from 'zod'

const base64url = (most: number) =>
  z
    .string({ error: 'This answer of a passkey is not whole.' })
    .max(most, 'This answer of a passkey is too long.')
    .regex(/^[\w-]+$/, 'This answer of a passkey is not whole.')

const answer = {
  id: base64url(1400),
  rawId: base64url(1400),
  type: z.literal('public-key'),
  authenticatorAttachment: z.enum(['platform', 'cross-platform']).nullish(),
  /** What a browser says beside it; nothing of it is used. */
  clientExtensionResults: z.record(z.string().max(60), z.unknown()).default({}),
}

/** What a browser gives for a new passkey (Web Authentication, level 3: RegistrationResponseJSON). */
const made = z.strictObject({
  ...answer,
  response: z.strictObject({
    clientDataJSON: base64url(4000),
    attestationObject: base64url(12_000),
    authenticatorData: base64url(12_000).optional(),
    transports: z.array(z.string().max(30)).max(10).optional(),
    publicKeyAlgorithm: z.int().optional(),
    publicKey: base64url(8000).optional(),
  }),
})

/** What a browser gives to prove who it is (AuthenticationResponseJSON). */
export const provedByPasskey = z.strictObject({
  ...answer,
  response: z.strictObject({
    clientDataJSON: base64url(4000),
    authenticatorData: base64url(4000),
    signature: base64url(4000),
    userHandle: base64url(200).nullish(),
  }),
})
export type ProvedByPasskey = z.output<typeof provedByPasskey>

/** A new passkey with what its person calls it. */
export const passkeyInput = z.strictObject({
  name: z
    .string({ error: 'Please give it a name.' })
    .trim()
    .min(1, 'Please give it a name.')
    .max(60, 'A name has at most 60 characters.'),
  made,
})
export type PasskeyInput = z.input<typeof passkeyInput>

/** A passkey as its person sees it. */
export interface PasskeyRecord {
  id: string
  name: string
  addedAt: string
  usedAt: string | null
}
