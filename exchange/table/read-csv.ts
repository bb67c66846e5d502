import { createReadStream } from 'node:fs'
import { open } from 'node:fs/promises'
import Papa from 'papaparse'
import { LIMITS, TableRefused, type TableRow } from './cells'

/** Bytes looked at to tell how a file is written. */
const SAMPLE = 64 * 1024

/** Whether every byte of a file is UTF-8. */
async function isUtf8(file: string): Promise<boolean> {
  const decoder = new TextDecoder('utf-8', { fatal: true })
  try {
    for await (const chunk of createReadStream(file) as AsyncIterable<Buffer>) decoder.decode(chunk, { stream: true })
    decoder.decode()
    return true
  } catch {
    return false
  }
}

async function sampleOf(file: string): Promise<Buffer> {
  const handle = await open(file)
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(SAMPLE), 0, SAMPLE, 0)
    return buffer.subarray(0, bytesRead)
  } finally {
    await handle.close()
  }
}

/** How a file of text is written: UTF-8, UTF-16 with its mark, else the Western code page spreadsheets save in. */
async function encodingOf(file: string, sample: Buffer): Promise<'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252'> {
  if (sample[0] === 0xff && sample[1] === 0xfe) return 'utf-16le'
  if (sample[0] === 0xfe && sample[1] === 0xff) return 'utf-16be'
  if (sample.subarray(0, 4_000).includes(0))
    throw new TableRefused('This file is no table: it holds bytes that are no text.')
  return (await isUtf8(file)) ? 'utf-8' : 'windows-1252'
}

/** The mark between cells: the one that stands most evenly in the first lines. */
function delimiterOf(text: string): string {
  const found = Papa.parse<string[]>(text, { preview: 20, delimitersToGuess: [',', ';', '\t', '|'] })
  return found.meta.delimiter || ','
}

async function* decoded(file: string, encoding: string): AsyncGenerator<string> {
  const decoder = new TextDecoder(encoding)
  for await (const chunk of createReadStream(file) as AsyncIterable<Buffer>)
    yield decoder.decode(chunk, { stream: true })
  yield decoder.decode()
}

/**
 * Where the last row that surely ended ends: after a line break outside of quotes. A quotation mark opens a cell only at
 * its beginning, as the parser has it: one in the middle of a cell (5'10") is a letter like others.
 */
function lastRowEnd(text: string, delimiter: string): number {
  let end = 0
  let quoted = false
  let begins = true
  for (let i = 0; i < text.length; i += 1) {
    const sign = text[i]
    if (quoted) {
      if (sign === '"') {
        if (text[i + 1] === '"') i += 1
        else quoted = false
      }
    } else if (sign === '"' && begins) quoted = true
    // Of a break of two signs the second may be in the next piece.
    else if (sign === '\n' || (sign === '\r' && i + 1 < text.length && text[i + 1] !== '\n')) end = i + 1
    begins = !quoted && (sign === delimiter || sign === '\n' || sign === '\r')
  }
  return end
}

const PIECE = 512 * 1024

/**
 * Rows of a file of separated values (RFC 4180, any of comma, semicolon, tab, bar), as text, one after another.
 * @throws TableRefused for what is no text, or has rows or cells beyond any table of ours
 */
export async function* readCsv(file: string): AsyncGenerator<TableRow> {
  const sample = await sampleOf(file)
  const encoding = await encodingOf(file, sample)
  const delimiter = delimiterOf(new TextDecoder(encoding).decode(sample))
  let line = 0
  let text = ''
  function* take(last: boolean): Generator<TableRow> {
    const end = last ? text.length : lastRowEnd(text, delimiter)
    const rows = Papa.parse<string[]>(text.slice(0, end), { delimiter }).data
    // A piece that ends with its row has nothing after it.
    if (!last && end > 0) rows.pop()
    text = text.slice(end)
    if (text.length > 8 * PIECE)
      throw new TableRefused('A cell of this file does not end: is a quotation mark left open?')
    for (const cells of rows) {
      line += 1
      if (line > LIMITS.rows)
        throw new TableRefused('This file has more than a million rows: please bring it in parts.')
      if (cells.length > LIMITS.columns) throw new TableRefused(`Row ${line} has more than ${LIMITS.columns} columns.`)
      if (cells.some((cell) => cell.length > LIMITS.cell))
        throw new TableRefused(`Row ${line} holds a cell of more than ${LIMITS.cell} characters.`)
      if (cells.length > 1 || cells[0]) yield { line, cells }
    }
  }
  for await (const piece of decoded(file, encoding)) {
    text += piece
    if (text.length > PIECE) yield* take(false)
  }
  yield* take(true)
}
