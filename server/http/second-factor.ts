import { randomInt, scrypt } from 'node:crypto'
import { promisify } from 'node:util'
import { authenticator } from 'otplib'
import type { Transaction } from '../db/database'
import { findSecondFactor, lacksSecond, takeRecoveryCode, takeStep } from '../repositories/second-factors'
import { sealText, unsealText } from '../sealed/sealed-text'
import { failure } from './failure'
import { hashOf } from './tokens'

/** RFC 6238 as applications on phones have it: SHA-1, six digits, thirty seconds; a step to either side for slow clocks. */
const STEP_SECONDS = 30
const totp = authenticator.clone({ step: STEP_SECONDS, window: 1 })

const CODES = 10
/** Letters and figures nobody mistakes for another on paper. */
const ALPHABET = 'abcdefghjkmnpqrstuvwxyz23456789'

const secretOf = (staffId: string) => `second factor of ${staffId}`

/** A new secret: as it is shown, as it is stored, and as the picture for the phone says it. */
export function newSecret(staffId: string, email: string) {
  // 160 bits, as RFC 4226 advises.
  const secret = totp.generateSecret(20)
  return { secret, stored: sealText(secret, secretOf(staffId)), uri: totp.keyuri(email, 'Oak Pinch', secret) }
}

/** Ten codes on paper: ten letters each, some fifty bits. */
export function newCodes(): string[] {
  const letters = (count: number) =>
    Array.from({ length: count }, () => ALPHABET[randomInt(ALPHABET.length)] ?? '').join('')
  return Array.from({ length: CODES }, () => `${letters(5)}-${letters(5)}`)
}

const asWritten = (code: string) => code.toLowerCase().replace(/[^a-z\d]/g, '')
const stretch = promisify<string, string, number, Buffer>(scrypt)

/**
 * A code as it is stored, however it was typed: fifty bits are guessed from a plain hash, so that it is stretched (scrypt
 * with Node's own cost, salted by whose it is).
 */
export const codeHash = async (staffId: string, code: string) =>
  (await stretch(asWritten(code), `oak-pinch code of ${staffId}`, 32)).toString('hex')

/** Those, for all of a person's new codes. */
export const codeHashes = (staffId: string, codes: readonly string[]) =>
  Promise.all(codes.map((code) => codeHash(staffId, code)))

/** As codes were stored at first. */
const plainHash = (staffId: string, code: string) => hashOf(`${staffId} ${asWritten(code)}`)

/**
 * Whether a code is right, and was not taken before; it is then used up. Six digits are the phone's, all else is paper.
 * To be called in a transaction.
 */
export async function takeCode(tx: Transaction, staffId: string, typed: string, now = Date.now()): Promise<boolean> {
  const code = typed.replace(/\s/g, '')
  const found = await findSecondFactor(tx, staffId)
  if (!found) return false
  if (!/^\d{6}$/.test(code)) {
    if (found.confirmedAt === null) return false
    return takeRecoveryCode(tx, staffId, [await codeHash(staffId, code), plainHash(staffId, code)])
  }
  const at = totp.clone({ epoch: now })
  const off = at.checkDelta(code, unsealText(found.secret, secretOf(staffId)))
  return off !== null && takeStep(tx, staffId, Math.floor(now / 1000 / STEP_SECONDS) + off)
}

/** Throws 409 when a person would be left without the second proof their studio wants. To be called in a transaction. */
export async function keepsSecond(tx: Transaction, who: { staffId: string; studioId: string }): Promise<void> {
  if (await lacksSecond(tx, who))
    throw failure(409, 'Your studio asks for a second proof: please set another one up before this one goes.')
}
