import { pbkdf2, randomBytes, timingSafeEqual } from 'node:crypto'
import { promisify } from 'node:util'
import { z } from 'zod'
import type { PinCheck } from '../../shared/schemas/device'
import { sealText, unsealText } from '../sealed/sealed-text'

/** As advised for PBKDF2 with SHA-256 (OWASP, recalled from memory): a device checks it too, with Web Crypto, when it is cut off. */
const ITERATIONS = 600_000
const BYTES = 32

const stored = z.strictObject({ salt: z.base64(), iterations: z.int().positive(), hash: z.base64() })
const derive = promisify(pbkdf2)
const secretOf = (staffId: string) => `pin of ${staffId}`

/** Digits as they are stored. */
export async function pinSecret(staffId: string, digits: string): Promise<string> {
  const salt = randomBytes(16)
  const hash = await derive(digits, salt, ITERATIONS, BYTES, 'sha256')
  const kept: PinCheck = { salt: salt.toString('base64'), iterations: ITERATIONS, hash: hash.toString('base64') }
  return sealText(JSON.stringify(kept), secretOf(staffId))
}

/** What those digits are checked against. @throws KeyRefused when they are sealed with a key that is not given */
export function pinCheck(staffId: string, secret: string): PinCheck {
  return stored.parse(JSON.parse(unsealText(secret, secretOf(staffId))))
}

/** Whether digits are the ones stored. */
export async function isRightPin(staffId: string, secret: string, digits: string): Promise<boolean> {
  const { salt, iterations, hash } = pinCheck(staffId, secret)
  const made = await derive(digits, Buffer.from(salt, 'base64'), iterations, BYTES, 'sha256')
  return timingSafeEqual(made, Buffer.from(hash, 'base64'))
}
