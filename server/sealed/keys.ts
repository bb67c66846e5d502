import { createHash, hkdfSync } from 'node:crypto'
import { readFileSync } from 'node:fs'

/** Bytes a key has. */
const KEY_BYTES = 32
const ID_BYTES = 4

/** A key is missing, or none; with a sentence. */
export class KeyRefused extends Error {}

/** A key that photographs, backups and secrets are sealed with, with the short name it is found again by. */
export interface DataKey {
  /** First bytes of its hash: what is sealed names its key by it. */
  id: Buffer
  /** A key of its own for one purpose (HKDF with SHA-256, RFC 5869). */
  for: (purpose: 'photographs' | 'backups' | 'secrets', salt: Buffer) => Buffer
}

/** The keys of an installation: the first seals, all of them open. */
export interface DataKeys {
  /** Null: nothing is sealed. */
  current: DataKey | null
  /** @throws KeyRefused when none of them is the one named */
  byId: (id: Buffer) => DataKey
}

function keyOf(text: string): DataKey {
  const bytes = /^[\da-f]{64}$/i.test(text) ? Buffer.from(text, 'hex') : Buffer.from(text, 'base64')
  if (bytes.length !== KEY_BYTES)
    throw new KeyRefused('DATA_KEY is 32 random bytes, as base64 or hexadecimal: openssl rand -base64 32 makes one.')
  return {
    id: createHash('sha256').update('oak-pinch key\0').update(bytes).digest().subarray(0, ID_BYTES),
    for: (purpose, salt) => Buffer.from(hkdfSync('sha256', bytes, salt, `oak-pinch ${purpose}`, KEY_BYTES)),
  }
}

/**
 * Keys from the environment: DATA_KEY, or the file DATA_KEY_FILE names, kept outside the data folder. Several with commas
 * between: the first seals, the others open what was sealed before.
 * @throws KeyRefused for what is no key
 */
export function dataKeys(env: NodeJS.ProcessEnv = process.env): DataKeys {
  const text = env.DATA_KEY ?? (env.DATA_KEY_FILE ? readFileSync(env.DATA_KEY_FILE, 'utf8') : '')
  const keys = text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
    .map(keyOf)
  return {
    current: keys[0] ?? null,
    byId(id) {
      const found = keys.find((one) => one.id.equals(id))
      if (!found)
        throw new KeyRefused(
          keys.length === 0
            ? 'This is sealed with a key: please name it in DATA_KEY or DATA_KEY_FILE.'
            : 'This is sealed with another key than those in DATA_KEY: please add the one it was sealed with.',
        )
      return found
    },
  }
}
