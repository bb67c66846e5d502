import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import type { DataKey, DataKeys } from '../sealed/keys'
import type { PhotoStore } from './photo-store'

const MAGIC = Buffer.from('OAKPINCH-PHOTO01')
const SALT = 16
const TAG = 16
const HEADER = MAGIC.length + 4 + SALT
/** Every photograph has a key of its own, which seals once. */
const NONCE = Buffer.alloc(12)

/** A photograph that does not open: changed, or another's. */
export class PhotoBroken extends Error {
  constructor() {
    super('This photograph does not open: its bytes were changed, or are another one’s.')
  }
}

function seal(id: string, bytes: Buffer, key: DataKey): Buffer {
  const salt = randomBytes(SALT)
  const header = Buffer.concat([MAGIC, key.id, salt])
  const cipher = createCipheriv('aes-256-gcm', key.for('photographs', salt), NONCE).setAAD(
    Buffer.concat([header, Buffer.from(id)]),
  )
  return Buffer.concat([header, cipher.update(bytes), cipher.final(), cipher.getAuthTag()])
}

const isSealed = (bytes: Buffer) => bytes.subarray(0, MAGIC.length).equals(MAGIC)

function unseal(id: string, sealed: Buffer, keys: DataKeys): Buffer {
  const header = sealed.subarray(0, HEADER)
  const key = keys.byId(header.subarray(MAGIC.length, MAGIC.length + 4))
  const body = sealed.subarray(HEADER, sealed.length - TAG)
  try {
    const opener = createDecipheriv('aes-256-gcm', key.for('photographs', header.subarray(HEADER - SALT)), NONCE)
      .setAAD(Buffer.concat([header, Buffer.from(id)]))
      .setAuthTag(sealed.subarray(sealed.length - TAG))
    return Buffer.concat([opener.update(body), opener.final()])
  } catch {
    throw new PhotoBroken()
  }
}

/**
 * A store whose photographs are sealed with a key (AES-256-GCM, bound to their ids); those kept before there was a key are
 * given as they are. Without a key the store is what it was, but what is sealed asks for its key.
 */
export function sealedPhotos(store: PhotoStore, keys: DataKeys): PhotoStore {
  const { current } = keys
  return {
    ...store,
    put: (id, bytes) => store.put(id, current ? seal(id, bytes, current) : bytes),
    async get(id) {
      const found = await store.get(id)
      return found && isSealed(found) ? unseal(id, found, keys) : found
    },
  }
}

/**
 * Seals what lies open, or under an earlier key, with the current one. Each is replaced whole: cut off anywhere, every
 * photograph opens.
 * @returns how many were sealed
 */
export async function sealAll(store: PhotoStore, keys: DataKeys): Promise<number> {
  const { current } = keys
  if (!current) return 0
  const sealed = sealedPhotos(store, keys)
  let count = 0
  for (const { id } of await store.list()) {
    const found = await store.get(id)
    if (!found || (isSealed(found) && found.subarray(MAGIC.length, MAGIC.length + 4).equals(current.id))) continue
    const bytes = await sealed.get(id)
    if (!bytes) continue
    await sealed.put(id, bytes)
    count += 1
  }
  return count
}
