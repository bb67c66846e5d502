import { KeyRefused, type DataKeys } from '../sealed/keys'
import { isOfKey, sealBytes, unsealBytes } from '../sealed/sealed-bytes'
import type { PhotoStore } from './photo-store'

const MAGIC = Buffer.from('OAKPINCH-PHOTO01')

/** A photograph that does not open: changed, or another's. */
export class PhotoBroken extends Error {
  constructor() {
    super('This photograph does not open: its bytes were changed, or are another one’s.')
  }
}

const isSealed = (bytes: Buffer) => bytes.subarray(0, MAGIC.length).equals(MAGIC)

function unseal(id: string, sealed: Buffer, keys: DataKeys): Buffer {
  try {
    return unsealBytes(sealed.subarray(MAGIC.length), keys, 'photographs', id)
  } catch (error) {
    throw error instanceof KeyRefused ? error : new PhotoBroken()
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
    put: (id, bytes) =>
      store.put(id, current ? Buffer.concat([MAGIC, sealBytes(bytes, current, 'photographs', id)]) : bytes),
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
    if (!found || (isSealed(found) && isOfKey(found.subarray(MAGIC.length), current))) continue
    const bytes = await sealed.get(id)
    if (!bytes) continue
    await sealed.put(id, bytes)
    count += 1
  }
  return count
}
