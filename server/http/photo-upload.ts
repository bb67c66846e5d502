import { createHash } from 'node:crypto'
import { getHeader, type H3Event } from 'h3'
import pLimit from 'p-limit'
import { useDatabase } from '../db/use-database'
import { usePorts } from '../ports'
import { homePhotoKnown } from '../repositories/hand-ins'
import { photoIdKnown } from '../repositories/photos'
import { readBytes } from './body'
import { failure } from './failure'
import { keptPicture, PHOTO_LIMIT } from './picture'

/** A large picture takes some hundred megabytes while it is read: one at a time, whoever sends it. */
const turn = pLimit(1)

/** What a row says about the bytes that are kept. */
export interface KeptBytes {
  width: number
  height: number
  byteLength: number
  /** SHA-256. */
  digest: string
}

/** The bytes of a photograph as they were sent. Throws a 4xx with a sentence for what is none or too large. */
export function readPhoto(event: H3Event): Promise<Buffer> {
  if (!/^(application\/octet-stream|image\/[\w.+-]+)$/i.test(getHeader(event, 'content-type') ?? ''))
    throw failure(415, 'A photograph comes as a picture (content-type image/jpeg or alike).')
  return readBytes(event, PHOTO_LIMIT, 'A photograph has at most 25 MB: please choose a smaller one.')
}

/**
 * Keeps a photograph's bytes under its id, then its row. Bytes first: a row without its picture is never seen, a picture
 * without its row is swept away. An id that is taken, in the studio or from home, keeps its own bytes.
 */
export async function storePhoto(id: string, bytes: Buffer, addRow: (kept: KeptBytes) => Promise<void>): Promise<void> {
  await turn(async () => {
    const picture = await keptPicture(bytes)
    const db = await useDatabase()
    const isTaken = (await photoIdKnown(db, id)) || (await homePhotoKnown(db, id))
    if (!isTaken) await usePorts().photos.put(id, picture.bytes)
    const digest = createHash('sha256').update(picture.bytes).digest('hex')
    await addRow({ width: picture.width, height: picture.height, byteLength: picture.bytes.length, digest })
  })
}
