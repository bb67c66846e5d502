import type { Readable } from 'node:stream'
import { ArchiveRefused } from './manifest'

/** Longest line of a table, bytes: a row is a few hundred. */
const LONGEST = 4 * 1024 * 1024
const BATCH = 64 * 1024

/** Rows as lines of JSON, in pieces of some kilobytes. */
export async function* linesOf(rows: AsyncIterable<readonly object[]>): AsyncGenerator<Buffer> {
  let text = ''
  for await (const page of rows) {
    for (const row of page) {
      text += `${JSON.stringify(row)}\n`
      if (text.length > BATCH) {
        yield Buffer.from(text)
        text = ''
      }
    }
  }
  if (text) yield Buffer.from(text)
}

/**
 * Lines of a stream of UTF-8, without their ends.
 * @throws ArchiveRefused for a line beyond any row, or bytes that are no text
 */
export async function* linesIn(stream: Readable): AsyncGenerator<string> {
  const decoder = new TextDecoder('utf-8', { fatal: true })
  const decode = (chunk?: Buffer) => {
    try {
      return decoder.decode(chunk, { stream: chunk !== undefined })
    } catch {
      throw new ArchiveRefused('A part of this archive is no text in UTF-8: the file is damaged.')
    }
  }
  let rest = ''
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    const parts = (rest + decode(chunk)).split('\n')
    rest = parts.pop() ?? ''
    if (rest.length > LONGEST) throw new ArchiveRefused('A line of this archive is longer than any row of ours.')
    yield* parts
  }
  rest += decode()
  if (rest) yield rest
}
