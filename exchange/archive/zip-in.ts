import { Transform, type Readable } from 'node:stream'
import yauzl, { type Entry, type RandomAccessReader, type ZipFile } from 'yauzl'

/** A ZIP that cannot be taken, with a sentence. */
export class ZipRefused extends Error {}

/** How much a ZIP may hold once unpacked. */
export interface ZipLimits {
  /** Parts at most. */
  parts: number
  /** Bytes of one part, unpacked. */
  partBytes: number
  /** Bytes of all parts, unpacked. */
  allBytes: number
  /** Unpacked to packed bytes of one part above a megabyte: beyond it a part is a bomb. */
  ratio: number
}

const DAMAGED = 'This file is damaged, or no ZIP: please fetch it once more.'
const BOMB = 'This file unpacks to far more than it can honestly hold: it is refused.'

/** A ZIP opened for reading any part by its path; parts stream and are never held whole. */
export interface ZipIn {
  paths: readonly string[]
  /** Bytes of a part unpacked, as its directory says. */
  sizeOf: (path: string) => number
  /** @throws ZipRefused when there is no such part, or on the stream when it is damaged */
  read: (path: string) => Promise<Readable>
  close: () => void
}

function refusalOf(
  { fileName, uncompressedSize, compressedSize, generalPurposeBitFlag }: Entry,
  limits: ZipLimits,
): string | null {
  if (generalPurposeBitFlag & 1) return 'This file is locked with a password: please save it without one.'
  if (/(^|[\\/])\.\.([\\/]|$)|^[\\/]|^[a-z]:|\0/i.test(fileName))
    return 'This file holds a path that leads out of it: it is refused.'
  if (uncompressedSize > limits.partBytes) return BOMB
  if (uncompressedSize > 1_048_576 && uncompressedSize > compressedSize * limits.ratio) return BOMB
  return null
}

/** Where a ZIP is read from that does not lie open on the disk. */
export interface ZipSource {
  size: number
  reader: RandomAccessReader
}

function openZip(from: string | ZipSource): Promise<ZipFile> {
  const options = { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: false }
  return new Promise((done, refuse) => {
    const opened = (error: Error | null, zip: ZipFile) => (error ? refuse(new ZipRefused(DAMAGED)) : done(zip))
    if (typeof from === 'string') yauzl.open(from, options, opened)
    else yauzl.fromRandomAccessReader(from.reader, from.size, options, opened)
  })
}

function directoryOf(zip: ZipFile, limits: ZipLimits): Promise<Map<string, Entry>> {
  return new Promise((done, refuse) => {
    const entries = new Map<string, Entry>()
    let all = 0
    const stop = (sentence: string) => refuse(new ZipRefused(sentence))
    zip.on('error', (error: Error) =>
      // The library's own guard against paths that climb ends here too.
      stop(
        /relative path|absolute path|invalid characters/.test(error.message)
          ? 'This file holds a path that leads out of it: it is refused.'
          : DAMAGED,
      ),
    )
    zip.on('entry', (entry: Entry) => {
      all += entry.uncompressedSize
      const sentence = refusalOf(entry, limits)
      if (sentence) return stop(sentence)
      if (all > limits.allBytes || entries.size >= limits.parts) return stop(BOMB)
      if (entries.has(entry.fileName)) return stop('This file holds the same part twice: it is refused.')
      if (!entry.fileName.endsWith('/')) entries.set(entry.fileName, entry)
      zip.readEntry()
    })
    zip.on('end', () => done(entries))
    zip.readEntry()
  })
}

/**
 * Opens a ZIP and reads its directory.
 * @param from a file of this disk, or what reads it
 * @throws ZipRefused for what is no ZIP, is damaged, climbs out of itself, or unpacks to too much
 */
export async function openZipIn(from: string | ZipSource, limits: ZipLimits): Promise<ZipIn> {
  const zip = await openZip(from)
  let entries: Map<string, Entry>
  try {
    entries = await directoryOf(zip, limits)
  } catch (error) {
    zip.close()
    throw error
  }
  return {
    paths: [...entries.keys()],
    sizeOf: (path) => entries.get(path)?.uncompressedSize ?? 0,
    read(path) {
      const entry = entries.get(path)
      if (!entry) return Promise.reject(new ZipRefused(`This file lacks a part it needs: ${path}.`))
      return new Promise((done, refuse) =>
        zip.openReadStream(entry, (error, stream) => {
          if (error) return refuse(new ZipRefused(DAMAGED))
          // What the library finds wrong while unpacking is said as the rest is.
          const clean = new Transform({ transform: (chunk: Buffer, _encoding, next) => next(null, chunk) })
          stream.on('error', () => clean.destroy(new ZipRefused(DAMAGED)))
          clean.on('close', () => stream.destroy())
          done(stream.pipe(clean))
        }),
      )
    },
    close: () => zip.close(),
  }
}
