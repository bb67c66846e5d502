import { pinCheckOf, type PinCheck } from './pin-check'
import { isLockedHere } from './lock-marks'
import type { KeyDatabase } from './key-database'

/** Says without opening the database that a key lies in it. */
const KEYED = 'oak-pinch-keyed'
/** Bytes AES-GCM takes for one sealing. */
const IV_BYTES = 12
const PATIENCE_MS = 1_500

/** A database of its own: the service worker reads the key out of it too (public/kept-sealed.js). */
const DATABASE = 'oak-pinch-key'

let opened: Promise<KeyDatabase> | null = null

/** Where the key lies; the code that opens it comes when it is first asked for. */
async function keys(): Promise<KeyDatabase['keys']> {
  opened ??= import('./key-database').then((module) => new module.KeyDatabase(DATABASE))
  opened.catch(() => (opened = null))
  return (await opened).keys
}

/** Fetches that code while there is a network: locking and sealing may come when there is none. */
export function readyDeviceKey(): void {
  keys().catch(() => undefined)
}

let inMemory: CryptoKey | null = null
/** Checks this person's PIN without the server: made of a PIN that was right on this page, and never kept on the device. */
let pinCheck: Promise<PinCheck> | null = null

/** Browsers seal only where the page came safely: over https, or from this machine. */
const canSeal = () => typeof crypto !== 'undefined' && 'subtle' in crypto

/** Bytes out of base64. */
export const bytesOf = (text: string) => Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0))

/** What is kept on this device: sealed, or where a browser cannot seal, as it is. */
export interface Sealed {
  iv: Uint8Array<ArrayBuffer>
  bytes: ArrayBuffer
}

/** Whether the key lies on this device, as far as is known without asking its database. */
export function isKeyed(): boolean {
  try {
    return !canSeal() || inMemory !== null || localStorage.getItem(KEYED) !== null
  } catch {
    return inMemory !== null
  }
}

function noteKeyed(keyed: boolean): void {
  try {
    if (keyed) localStorage.setItem(KEYED, '1')
    else localStorage.removeItem(KEYED)
  } catch {
    // Without plain storage the server is asked each time.
  }
}

/** The key, where this device has one. Slow or broken storage holds nobody up. */
export async function deviceKey(): Promise<CryptoKey | null> {
  if (inMemory || !canSeal()) return inMemory
  const late = new Promise<null>((give) => setTimeout(() => give(null), PATIENCE_MS))
  const found = keys()
    .then((table) => table.get('studio'))
    .then(
      (row) => row?.key ?? null,
      () => null,
    )
  inMemory = await Promise.race([found, late])
  return inMemory
}

/** Takes a key the server gave: kept so that nothing reads it out, and only while somebody is signed in here. */
export async function takeDeviceKey(key: string): Promise<void> {
  if (!canSeal()) return
  inMemory = await crypto.subtle.importKey('raw', bytesOf(key), 'AES-GCM', false, ['encrypt', 'decrypt'])
  await persistKey()
}

/** Puts the key of this page back on the device once that is open; a key that comes late does not reach a locked one. */
export async function persistKey(): Promise<void> {
  if (!inMemory || isLockedHere()) return
  const row = { id: 'studio' as const, key: inMemory }
  await keys()
    .then((table) => table.put(row))
    .then(
      () => noteKeyed(true),
      () => undefined,
    )
}

/** The key leaves the device; `all`: this page as well. What is sealed stays sealed until it comes back. */
export async function forgetDeviceKey({ all }: { all: boolean }): Promise<void> {
  noteKeyed(false)
  if (all) {
    inMemory = null
    pinCheck = null
  }
  if (!canSeal()) return
  await keys()
    .then((table) => table.clear())
    // Its code did not come, or it is broken: the browser takes it away as a whole.
    .catch(() => 'indexedDB' in globalThis && indexedDB.deleteDatabase(DATABASE))
}

/** Something as it is kept: bound to its id, so that it cannot be laid under another. Null where nothing can be sealed. */
export async function seal(id: string, value: unknown): Promise<Sealed | null> {
  const key = await deviceKey()
  if (!key) return null
  const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES))
  const text = new TextEncoder().encode(JSON.stringify(value))
  const additionalData = new TextEncoder().encode(id)
  return { iv, bytes: await crypto.subtle.encrypt({ name: 'AES-GCM', iv, additionalData }, key, text) }
}

/** That again; null when it was sealed with another key, or there is none now. */
export async function unseal(id: string, { iv, bytes }: Sealed): Promise<unknown> {
  const key = await deviceKey()
  if (!key) return null
  const additionalData = new TextEncoder().encode(id)
  return crypto.subtle.decrypt({ name: 'AES-GCM', iv, additionalData }, key, bytes).then(
    (text): unknown => JSON.parse(new TextDecoder().decode(text)),
    () => null,
  )
}

/** Remembers a PIN the server has just taken, for the time without it. */
export function rememberPin(digits: string): void {
  pinCheck = pinCheckOf(digits)
  pinCheck.catch(() => (pinCheck = null))
}

/** Whether digits are this person's PIN; null: this page does not know. */
export async function checkPinHere(digits: string): Promise<boolean | null> {
  const check = await pinCheck
  return check ? check(digits) : null
}

/** From now on only the server opens: the PIN was wrong too often here. */
export function forgetPinHere(): void {
  pinCheck = null
}
