import { createHash, randomBytes } from 'node:crypto'

/** SHA-256 of a random token, as it is stored. */
export function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('hex')
}

/** A random token for a link or a cookie: 256 bits. */
export function randomToken(): string {
  return randomBytes(32).toString('base64url')
}
