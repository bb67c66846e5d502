import { dataKeys, type DataKeys } from './keys'
import { sealBytes, unsealBytes } from './sealed-bytes'

const MARK = 'sealed:'

/** A text for the database, sealed and bound to what it is of where there is a key; else as it is. */
export function sealText(text: string, of: string, { current }: DataKeys = dataKeys()): string {
  return current ? MARK + sealBytes(Buffer.from(text), current, 'secrets', of).toString('base64') : text
}

/**
 * The text again.
 * @throws KeyRefused, or Error when it was changed or is another one's
 */
export function unsealText(text: string, of: string, keys: DataKeys = dataKeys()): string {
  if (!text.startsWith(MARK)) return text
  return unsealBytes(Buffer.from(text.slice(MARK.length), 'base64'), keys, 'secrets', of).toString('utf8')
}
