import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server'
import { addMinutes } from 'date-fns'
import type { H3Event } from 'h3'
import { parse as uuidBytes } from 'uuid'
import type { PasskeyInput, ProvedByPasskey } from '../../shared/schemas/passkey'
import { useDatabase } from '../db/use-database'
import { findPasskey, keepChallenge, notePasskey, passkeyIds, takeChallenge } from '../repositories/passkeys'
import type { PasskeyPurpose } from '../repositories/passkeys'
import type { Actor } from '../write/change'
import { change } from '../write/use-change'
import { ownOrigin } from './address'
import { failure } from './failure'
import { logOf } from './log'
import { hashOf } from './tokens'

/** A question waits so long for its answer, minutes. */
const OPEN_MINUTES = 5
const REFUSED = 'This passkey was not taken. Please try again, or use your password.'

/** Whom a passkey is made for: the address the application is reached under, as the browser sees it. */
function partyOf(event: H3Event) {
  const origin = ownOrigin(event)
  return { expectedOrigin: origin, expectedRPID: new URL(origin).hostname }
}

const keep = (actor: Actor, challenge: string, purpose: PasskeyPurpose, staffId: string | null) =>
  change(actor, { kind: 'passkey.asked' }, (tx) =>
    keepChallenge(tx, {
      hash: hashOf(challenge),
      staffId,
      purpose,
      expiresAt: addMinutes(new Date(), OPEN_MINUTES).toISOString(),
    }),
  )

/** What a browser makes a new passkey of. */
export async function askNewPasskey(
  event: H3Event,
  actor: Actor,
  who: { staffId: string; email: string; name: string },
) {
  const options = await generateRegistrationOptions({
    rpName: 'Oak Pinch',
    rpID: partyOf(event).expectedRPID,
    userName: who.email,
    userDisplayName: who.name,
    userID: Uint8Array.from(uuidBytes(who.staffId)),
    attestationType: 'none',
    excludeCredentials: await passkeyIds(await useDatabase(), who.staffId),
    // Kept where it is made, so that a sign-in needs no name; opened there by finger, face or digits.
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  })
  await keep(actor, options.challenge, 'add', who.staffId)
  return options
}

/** What a browser proves with a passkey: its own person's, or for a sign-in (`staffId` null) anybody's. */
export async function askPasskey(event: H3Event, actor: Actor, staffId: string | null) {
  const options = await generateAuthenticationOptions({
    rpID: partyOf(event).expectedRPID,
    userVerification: 'required',
    allowCredentials: staffId === null ? [] : await passkeyIds(await useDatabase(), staffId),
  })
  await keep(actor, options.challenge, staffId === null ? 'sign-in' : 'prove', staffId)
  return options
}

/** Takes the challenge an answer speaks of, whatever comes of it. Throws 422 when it was not asked, or long ago. */
async function taken(actor: Actor, clientDataJSON: string, purpose: PasskeyPurpose, staffId: string | null) {
  const said = challengeIn(clientDataJSON)
  const asked =
    said !== null &&
    (await change(actor, { kind: 'passkey.asked' }, (tx) =>
      takeChallenge(tx, { hash: hashOf(said), staffId, purpose }),
    ))
  if (!asked) throw failure(422, REFUSED)
  return said
}

function challengeIn(clientDataJSON: string): string | null {
  try {
    const said: unknown = JSON.parse(Buffer.from(clientDataJSON, 'base64url').toString('utf8'))
    const challenge = said && typeof said === 'object' && 'challenge' in said ? said.challenge : null
    return typeof challenge === 'string' ? challenge : null
  } catch {
    return null
  }
}

function refused(event: H3Event, error: unknown): never {
  logOf(event).warn({ what: 'passkey refused', why: error instanceof Error ? error.message : 'not verified' })
  throw failure(422, REFUSED)
}

/** What is kept of a new passkey. Throws 422 when it is not one made for this place, just now. */
export async function newPasskey(event: H3Event, actor: Actor, staffId: string, made: PasskeyInput['made']) {
  const expectedChallenge = await taken(actor, made.response.clientDataJSON, 'add', staffId)
  const answer = { ...made, clientExtensionResults: {} } as Parameters<typeof verifyRegistrationResponse>[0]['response']
  const checked = await verifyRegistrationResponse({
    response: answer,
    expectedChallenge,
    ...partyOf(event),
    requireUserVerification: true,
  }).catch((error: unknown) => refused(event, error))
  if (!checked.verified) return refused(event, null)
  const { id, publicKey, counter, transports } = checked.registrationInfo.credential
  return {
    credentialId: id,
    publicKey: Buffer.from(publicKey).toString('base64url'),
    counter,
    transports: transports ?? [],
  }
}

/**
 * Who has proved with a passkey who they are, its use noted; for a sign-in `staffId` is null, else it has to be theirs.
 * Throws 422 for anything but one of ours, asked for just now and for the first time.
 */
export async function provedBy(event: H3Event, actor: Actor, staffId: string | null, proof: ProvedByPasskey) {
  const purpose = staffId === null ? 'sign-in' : 'prove'
  const expectedChallenge = await taken(actor, proof.response.clientDataJSON, purpose, staffId)
  const found = await findPasskey(await useDatabase(), proof.id)
  if (!found || (staffId !== null && found.staffId !== staffId)) return refused(event, null)
  const checked = await verifyAuthenticationResponse({
    response: { ...proof, clientExtensionResults: {} } as Parameters<
      typeof verifyAuthenticationResponse
    >[0]['response'],
    expectedChallenge,
    ...partyOf(event),
    credential: {
      id: found.credentialId,
      publicKey: new Uint8Array(Buffer.from(found.publicKey, 'base64url')),
      counter: found.counter,
    },
    requireUserVerification: true,
  }).catch((error: unknown) => refused(event, error))
  if (!checked.verified) return refused(event, null)
  await change({ kind: 'staff', staffId: found.staffId, studioId: found.studioId }, { kind: 'passkey.asked' }, (tx) =>
    notePasskey(tx, found.id, checked.authenticationInfo.newCounter),
  )
  return { staffId: found.staffId, studioId: found.studioId }
}
