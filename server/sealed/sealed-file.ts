import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import { open, type FileHandle } from 'node:fs/promises'
import { Readable, Writable } from 'node:stream'
import yauzl from 'yauzl'
import type { ZipSource } from '../../exchange/archive/zip-in'
import type { DataKey, DataKeys } from './keys'

/**
 * A file sealed in pieces of 64 KiB (AES-256-GCM), each with its number and whether it is the last in its nonce: a piece
 * changed, left out, moved or cut off does not open (the STREAM construction; Hoang, Reyhanitabar, Rogaway and Vizár,
 * CRYPTO 2015). Any piece can be read by itself, so that what was sealed never lies open on the disk.
 */
const MAGIC = Buffer.from('OAKPINCH-SEALED1')
const PIECE = 64 * 1024
const TAG = 16
const SALT = 16
const KEY_ID = 4
const HEADER = MAGIC.length + KEY_ID + SALT

/** What is sealed does not open: changed, cut off, or none. */
export class SealBroken extends Error {
  constructor() {
    super('This sealed file is damaged, or was changed: it does not open.')
  }
}

function nonceOf(piece: number, isLast: boolean): Buffer {
  const nonce = Buffer.alloc(12)
  nonce[0] = isLast ? 1 : 0
  nonce.writeBigUInt64BE(BigInt(piece), 4)
  return nonce
}

/** Whether a file begins as a sealed one does. */
export async function isSealed(path: string): Promise<boolean> {
  const handle = await open(path, 'r')
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(MAGIC.length), 0, MAGIC.length, 0)
    return bytesRead === MAGIC.length && buffer.equals(MAGIC)
  } finally {
    await handle.close()
  }
}

/** A file to write to, which seals what it is given. Finished once everything is on the disk. */
export function sealedFile(path: string, key: DataKey): Writable {
  const salt = randomBytes(SALT)
  const header = Buffer.concat([MAGIC, key.id, salt])
  const secret = key.for('backups', salt)
  let handle: FileHandle | null = null
  let held: Buffer[] = []
  let bytes = 0
  let pieces = 0

  async function piece(plain: Buffer, isLast: boolean): Promise<void> {
    const cipher = createCipheriv('aes-256-gcm', secret, nonceOf(pieces, isLast)).setAAD(header)
    const sealed = Buffer.concat([cipher.update(plain), cipher.final(), cipher.getAuthTag()])
    await handle?.writeFile(sealed)
    pieces += 1
  }
  async function take(chunk: Buffer): Promise<void> {
    held.push(chunk)
    bytes += chunk.length
    // The last piece is told from the others: as many bytes as it may have wait until more come.
    if (bytes <= PIECE) return
    let all = Buffer.concat(held)
    while (all.length > PIECE) {
      await piece(all.subarray(0, PIECE), false)
      all = all.subarray(PIECE)
    }
    held = [all]
    bytes = all.length
  }
  const step = (work: () => Promise<void>, done: (error?: Error | null) => void) =>
    work().then(
      () => done(),
      (error: unknown) => done(error as Error),
    )
  return new Writable({
    construct: (done) =>
      void step(async () => {
        handle = await open(path, 'w', 0o600)
        await handle.writeFile(header)
      }, done),
    write: (chunk: Buffer, _encoding, done) => void step(() => take(chunk), done),
    final: (done) =>
      void step(async () => {
        await piece(Buffer.concat(held), true)
        await handle?.sync()
      }, done),
    destroy: (error, done) => void (handle?.close() ?? Promise.resolve()).finally(() => done(error)),
  })
}

/**
 * Opens a sealed file for reading any part of it, as the ZIP reader asks; closed with the ZIP.
 * @throws SealBroken, KeyRefused
 */
export async function openSealed(path: string, keys: DataKeys): Promise<ZipSource> {
  const handle = await open(path, 'r')
  try {
    const { size: whole } = await handle.stat()
    const header = Buffer.alloc(HEADER)
    await handle.read(header, 0, HEADER, 0)
    const count = Math.ceil((whole - HEADER) / (PIECE + TAG))
    const size = whole - HEADER - count * TAG
    if (!header.subarray(0, MAGIC.length).equals(MAGIC) || count < 1 || size < 0) throw new SealBroken()
    const key = keys.byId(header.subarray(MAGIC.length, MAGIC.length + KEY_ID))
    const secret = key.for('backups', header.subarray(HEADER - SALT))

    async function piece(index: number): Promise<Buffer> {
      const at = HEADER + index * (PIECE + TAG)
      const sealed = Buffer.alloc(Math.min(PIECE + TAG, whole - at))
      await handle.read(sealed, 0, sealed.length, at)
      const opener = createDecipheriv('aes-256-gcm', secret, nonceOf(index, index === count - 1))
        .setAAD(header)
        .setAuthTag(sealed.subarray(sealed.length - TAG))
      try {
        return Buffer.concat([opener.update(sealed.subarray(0, sealed.length - TAG)), opener.final()])
      } catch {
        throw new SealBroken()
      }
    }
    async function* range(start: number, end: number): AsyncGenerator<Buffer> {
      for (let at = start; at < end;) {
        const index = Math.floor(at / PIECE)
        const plain = await piece(index)
        const from = at - index * PIECE
        const part = plain.subarray(from, Math.min(plain.length, from + (end - at)))
        if (part.length === 0) throw new SealBroken()
        at += part.length
        yield part
      }
    }
    // The last piece says that nothing was cut off.
    await piece(count - 1)
    class Reader extends yauzl.RandomAccessReader {
      override _readStreamForRange(start: number, end: number): Readable {
        return Readable.from(range(start, end), { objectMode: false })
      }
      override close(done: (error: Error | null) => void): void {
        handle.close().then(() => done(null), done)
      }
    }
    return { size, reader: new Reader() }
  } catch (error) {
    await handle.close()
    throw error
  }
}
