import { createHmac, hkdfSync, pbkdf2, randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { promisify } from 'node:util'
import { z } from 'zod'
import { sealText, unsealText } from '../sealed/sealed-text'

const BYTES = 32

/**
 * scrypt as advised today (OWASP, recalled from memory: N = 2^17, r = 8, p = 1; 128 MB a try), over digits that were keyed
 * with a secret the database does not hold. Four digits are ten thousand possibilities: somebody who has the database and
 * not the key learns nothing from trying them all.
 */
const cost = () => Number(process.env.NUXT_HASH_SCRYPT_COST ?? 2 ** 17)

/** Made of the secret that sessions are sealed with; it lies in the environment or beside the data, never in it. */
const serverKey = () =>
  Buffer.from(hkdfSync('sha256', process.env.NUXT_SESSION_PASSWORD ?? '', '', 'oak-pinch PINs', BYTES))

/** As stored now, and as stored before 2026-12 (PBKDF2 without a key). */
const stored = z.union([
  z.strictObject({ salt: z.base64(), scrypt: z.int().positive(), hash: z.base64() }),
  z.strictObject({ salt: z.base64(), iterations: z.int().positive(), hash: z.base64() }),
])

const deriveOld = promisify(pbkdf2)
const derive = promisify<Buffer, Buffer, number, { N: number; r: number; maxmem: number }, Buffer>(scrypt)
const secretOf = (staffId: string) => `pin of ${staffId}`

function keyed(staffId: string, digits: string, salt: Buffer, N: number): Promise<Buffer> {
  const input = createHmac('sha256', serverKey()).update(`${staffId}\n${digits}`).digest()
  return derive(input, salt, BYTES, { N, r: 8, maxmem: 256 * N * 8 })
}

/** Digits as they are stored. */
export async function pinSecret(staffId: string, digits: string): Promise<string> {
  const salt = randomBytes(16)
  const N = cost()
  const hash = await keyed(staffId, digits, salt, N)
  const kept = { salt: salt.toString('base64'), scrypt: N, hash: hash.toString('base64') }
  return sealText(JSON.stringify(kept), secretOf(staffId))
}

/**
 * Whether digits are the ones stored.
 * @returns also whether they are stored in the old way, to be stored anew
 * @throws KeyRefused when they are sealed with a key that is not given
 */
export async function checkPin(
  staffId: string,
  secret: string,
  digits: string,
): Promise<{ right: boolean; isOld: boolean }> {
  const kept = stored.parse(JSON.parse(unsealText(secret, secretOf(staffId))))
  const salt = Buffer.from(kept.salt, 'base64')
  const isOld = 'iterations' in kept
  const made = isOld
    ? await deriveOld(digits, salt, kept.iterations, BYTES, 'sha256')
    : await keyed(staffId, digits, salt, kept.scrypt)
  return { right: timingSafeEqual(made, Buffer.from(kept.hash, 'base64')), isOld }
}
