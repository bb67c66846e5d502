import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import type { DataKey, DataKeys } from './keys'

const [ID, SALT, TAG] = [4, 16, 16]
/** What is sealed has a key of its own, which seals once. */
const NONCE = Buffer.alloc(12)

type Purpose = Parameters<DataKey['for']>[0]

/** Bytes sealed whole (AES-256-GCM) and bound to what they are of: name of the key, salt, sealed bytes, tag. */
export function sealBytes(bytes: Buffer, key: DataKey, purpose: Purpose, of: string): Buffer {
  const salt = randomBytes(SALT)
  const cipher = createCipheriv('aes-256-gcm', key.for(purpose, salt), NONCE).setAAD(Buffer.from(of))
  return Buffer.concat([key.id, salt, cipher.update(bytes), cipher.final(), cipher.getAuthTag()])
}

/**
 * Those bytes again.
 * @throws KeyRefused, or Error when they were changed or are another one's
 */
export function unsealBytes(sealed: Buffer, keys: DataKeys, purpose: Purpose, of: string): Buffer {
  const key = keys.byId(sealed.subarray(0, ID))
  const opener = createDecipheriv('aes-256-gcm', key.for(purpose, sealed.subarray(ID, ID + SALT)), NONCE)
    .setAAD(Buffer.from(of))
    .setAuthTag(sealed.subarray(sealed.length - TAG))
  return Buffer.concat([opener.update(sealed.subarray(ID + SALT, sealed.length - TAG)), opener.final()])
}

/** Whether they were sealed with this key. */
export const isOfKey = (sealed: Buffer, key: DataKey) => sealed.subarray(0, ID).equals(key.id)
