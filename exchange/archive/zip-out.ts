import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { Readable, Transform, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import yazl from 'yazl'

/** Every part carries this day: the same facts give the same bytes. */
const SAME_DAY = new Date(1980, 0, 1)

/** What was written of one part. */
export interface Written {
  bytes: number
  sha256: string
}

/** A ZIP being written to a stream part by part: no part is ever held whole. */
export interface ZipOut {
  /**
   * @param compressed false for what is compressed already
   * @returns once the part is written
   */
  add: (path: string, content: AsyncIterable<Buffer> | Iterable<Buffer>, compressed?: boolean) => Promise<Written>
  /** Writes the directory; resolves once the last byte has been taken. */
  end: () => Promise<void>
}

/** Begins a ZIP on `target`. The same parts in the same order give the same bytes. */
export function zipTo(target: Writable): ZipOut {
  const zip = new yazl.ZipFile()
  const done = pipeline(zip.outputStream, target)
  // Told where it is waited for; until then it must not end the process.
  done.catch(() => undefined)
  return {
    async add(path, content, compressed = true) {
      const hash = createHash('sha256')
      let bytes = 0
      const counted = new Transform({
        transform(chunk: Buffer, _encoding, next) {
          hash.update(chunk)
          bytes += chunk.length
          next(null, chunk)
        },
      })
      const options = { mtime: SAME_DAY, mode: 0o100600, compress: compressed, forceDosTimestamp: true }
      const source = Readable.from(content, { objectMode: false })
      source.on('error', (error) => counted.destroy(error))
      zip.addReadStream(source.pipe(counted), path, options)
      // A target that has gone (a download given up) ends the part as well.
      await Promise.race([
        once(counted, 'end'),
        done.then(() => Promise.reject(new Error('The file was closed early.'))),
      ])
      return { bytes, sha256: hash.digest('hex') }
    },
    async end() {
      zip.end()
      await done
    },
  }
}
