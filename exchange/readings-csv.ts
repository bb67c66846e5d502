import { quoted } from './header'
import type { IncomingRow, Tell } from './incoming'
import { readingRowReader } from './reading-rows'
import { textOf, type TableRow } from './table/cells'

/** Columns of the readings CSV, in their order: one reading a row. */
export const READINGS_HEADER = [
  'client',
  'sex',
  'birth_date',
  'height_cm',
  'at',
  'set',
  'assessor',
  'site',
  'value',
  'unit',
  'round',
  'struck',
  'method',
  'note',
] as const

/**
 * Text of a cell that a spreadsheet may take for a formula, with a quote before it: it is never worked out.
 * @example inert('=2+3') // "'=2+3"
 */
export function inert(text: string): string {
  return /^[=+\-@\t\r]/.test(text) ? `'${text}` : text
}

/** The same text as it was before, where a quote was put before it. */
export function bare(text: string): string {
  return /^'[=+\-@\t\r]/.test(text) ? text.slice(1) : text
}

/** A row of CSV (RFC 4180). Numbers stand as they are; text is inert. */
export function csvRow(cells: readonly (string | number | null)[]): string {
  return `${cells.map((cell) => (typeof cell === 'string' ? quoted(inert(cell)) : (cell ?? ''))).join(',')}\r\n`
}

/**
 * Rows of the readings CSV as what they say, a reading each.
 * @throws HeaderProblem when the header does not name what is needed
 */
export async function* incomingReadings(rows: AsyncIterable<TableRow>, tell: Tell): AsyncGenerator<IncomingRow> {
  const read = readingRowReader()
  for await (const { line, cells } of rows) {
    const row = read(
      cells.map((cell) => bare(textOf(cell))),
      line,
    )
    if (row === null) continue
    if (typeof row === 'string') {
      tell({ line, column: null, message: `${row[0]?.toUpperCase()}${row.slice(1)}.` })
      continue
    }
    const { client, sex, birthDate, heightCm, at, time, protocol, assessor, site, written, round, struck, method } = row
    yield {
      line,
      client: { name: client, sex, birthDate, heightCm },
      at: new Date(time).toISOString(),
      day: at.slice(0, 10),
      protocolId: protocol.id,
      assessor,
      side: 'right',
      note: '',
      readings: [{ site, round, ...written, struck, method, note: row.note }],
    }
  }
}
