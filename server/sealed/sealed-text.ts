import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import { dataKeys, type DataKeys } from './keys'

const MARK = 'sealed:'
const [ID, SALT, TAG] = [4, 16, 16]
/** Every text has a key of its own, which seals once. */
const NONCE = Buffer.alloc(12)

/** A text for the database, sealed and bound to what it is of where there is a key; else as it is. */
export function sealText(text: string, of: string, { current }: DataKeys = dataKeys()): string {
  if (!current) return text
  const salt = randomBytes(SALT)
  const cipher = createCipheriv('aes-256-gcm', current.for('secrets', salt), NONCE).setAAD(Buffer.from(of))
  const sealed = Buffer.concat([current.id, salt, cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()])
  return MARK + sealed.toString('base64')
}

/**
 * The text again.
 * @throws KeyRefused, or Error when it was changed or is another one's
 */
export function unsealText(text: string, of: string, keys: DataKeys = dataKeys()): string {
  if (!text.startsWith(MARK)) return text
  const sealed = Buffer.from(text.slice(MARK.length), 'base64')
  const key = keys.byId(sealed.subarray(0, ID))
  const opener = createDecipheriv('aes-256-gcm', key.for('secrets', sealed.subarray(ID, ID + SALT)), NONCE)
    .setAAD(Buffer.from(of))
    .setAuthTag(sealed.subarray(sealed.length - TAG))
  return Buffer.concat([opener.update(sealed.subarray(ID + SALT, sealed.length - TAG)), opener.final()]).toString(
    'utf8',
  )
}
