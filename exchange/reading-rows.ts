import { dayExists } from '../core/calendar'
import type { Sex } from '../core/equations'
import { findProtocol, type Protocol } from '../core/protocols'
import type { MeasureId } from '../core/readings'
import { rangeOf, unitOf } from '../core/readings/slips/words'
import { asSite, isInSet, siteInSet, WAY_IDS, type WayId } from '../core/sites'
import { lengthToCm, massToKg } from '../core/units'
import { columnNames, HeaderProblem, numberOf, SEXES } from './header'

const NEEDED = ['client', 'sex', 'birth_date', 'height_cm', 'at', 'set', 'assessor', 'site', 'value'] as const
const MORE = ['unit', 'round', 'struck', 'method', 'note'] as const
type Name = (typeof NEEDED)[number] | (typeof MORE)[number]

/** One reading as a row gives it. */
export interface ReadingRow {
  line: number
  client: string
  sex: Sex
  birthDate: string
  heightCm: number | null
  /** As written. */
  at: string
  time: number
  protocol: Protocol
  assessor: string
  site: MeasureId
  /** Folds mm, girths and height cm, weight kg. */
  value: number
  /** As it was read, in its own unit. */
  written: { value: number; unit: 'mm' | 'cm' | 'in' | 'kg' | 'lb' }
  /** From 1; where the table has no such column every reading is of the first. */
  round: number
  struck: boolean
  method: WayId | null
  note: string
}

export type Refuse = (line: number, reason: string) => void

/** Where each column stands; -1: not there. */
function columnsOf(header: readonly string[]): Record<Name, number> {
  const names = columnNames(header, NEEDED)
  return Object.fromEntries([...NEEDED, ...MORE].map((name) => [name, names.indexOf(name)])) as Record<Name, number>
}

/** An instant in ISO 8601; without an offset it is taken for UTC. NaN: none. */
function timeOf(text: string): number {
  if (!/^\d{4}-\d\d-\d\d([T ]\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)?)?$/.test(text)) return NaN
  if (!dayExists(text.slice(0, 10))) return NaN
  const zoned = text.length === 10 || /(Z|[+-]\d\d:?\d\d)$/.test(text.slice(10))
  return Date.parse(zoned ? text : `${text}Z`)
}

const UNITS: Record<ReturnType<typeof unitOf>, Record<string, (value: number) => number>> = {
  mm: { mm: (value) => value },
  cm: { cm: (value) => value, in: (value) => lengthToCm(value, 'in') },
  kg: { kg: (value) => value, lb: (value) => massToKg(value, 'lb') },
}

function short(text: string): string {
  return text.slice(0, 40) || 'empty'
}

/** A row as a reading, or why it is none. */
function readRow(columns: Record<Name, number>, cells: readonly string[], line: number): ReadingRow | string {
  const cell = (name: Name) => (cells[columns[name]] ?? '').trim()
  const client = cell('client')
  if (!client) return 'no client'
  const sex = SEXES[cell('sex').toLowerCase()]
  if (!sex) return `unknown sex: ${short(cell('sex'))}`
  const birthDate = cell('birth_date')
  if (!dayExists(birthDate)) return `birth_date is no day (YYYY-MM-DD): ${short(birthDate)}`
  const height = cell('height_cm')
  const heightCm = height === '' ? null : numberOf(height)
  const tall = rangeOf('height')
  if (height !== '' && !(heightCm !== null && heightCm >= tall.low && heightCm <= tall.high))
    return `height_cm is not between ${tall.low} and ${tall.high}: ${short(height)}`
  const at = cell('at')
  const time = timeOf(at)
  if (!Number.isFinite(time)) return `at is no instant (ISO 8601): ${short(at)}`
  if (at.slice(0, 10) < birthDate) return 'at is before birth_date'
  const protocol = findProtocol(cell('set'))
  if (!protocol) return `unknown set: ${short(cell('set'))}`
  const name = cell('site').toLowerCase()
  const known = name === 'weight' || name === 'height' ? name : asSite(name)
  if (!known) return `unknown site: ${short(name)}`
  const site = known === 'weight' || known === 'height' ? known : siteInSet(protocol.sites, known)
  if (site !== 'weight' && site !== 'height' && !isInSet(protocol.sites, site))
    return `${site} is not in the set ${protocol.id}`
  const number = numberOf(cell('value'))
  if (number === null || !Number.isFinite(number)) return `value is not a number: ${short(cell('value'))}`
  const unit = unitOf(site)
  const convert = UNITS[unit][cell('unit').toLowerCase() || unit]
  if (!convert) return `unknown unit for ${site}: ${short(cell('unit'))}`
  const value = convert(number)
  const { low, high } = rangeOf(site)
  if (!(value >= low && value <= high)) return `${site} is not between ${low} and ${high} ${unit}: ${number}`
  const round = cell('round') === '' ? 1 : Number(cell('round'))
  if (!(Number.isInteger(round) && round >= 1 && round <= 20))
    return `round is not between 1 and 20: ${short(cell('round'))}`
  const way = WAY_IDS.find((one) => one === cell('method').toLowerCase()) ?? null
  return {
    line,
    client,
    sex,
    birthDate,
    heightCm,
    at,
    time,
    protocol,
    assessor: cell('assessor'),
    site,
    value,
    written: { value: number, unit: (cell('unit').toLowerCase() || unit) as ReadingRow['written']['unit'] },
    round,
    struck: isStruck(cell('struck')),
    method: way,
    note: cell('note').slice(0, 500),
  }
}

const isStruck = (text: string) => /^(1|true|yes|x|struck)$/i.test(text)

/**
 * Reads rows of the readings CSV one by one, the header first.
 * @throws HeaderProblem when the header does not name what is needed
 * @returns null for the header and for empty rows, a sentence for what is no reading
 */
export function readingRowReader(): (cells: readonly string[], line: number) => ReadingRow | string | null {
  let columns: Record<Name, number> | null = null
  return (cells, line) => {
    if (!columns) {
      columns = columnsOf(cells)
      return null
    }
    return cells.length > 1 || cells[0]?.trim() ? readRow(columns, cells, line) : null
  }
}

/**
 * Readings of a CSV that count, in its order; rows that cannot be read are refused by their line, struck ones left out.
 * @throws HeaderProblem when the header does not name what is needed
 */
export function readingRows(rows: readonly string[][], refuse: Refuse): ReadingRow[] {
  if (rows.length === 0) throw new HeaderProblem('The input is empty: a header row is needed.')
  const read = readingRowReader()
  const found: ReadingRow[] = []
  let struckAt = -1
  for (const [i, cells] of rows.entries()) {
    if (i === 0) struckAt = cells.findIndex((name) => name.trim().toLowerCase() === 'struck')
    // What is struck may say anything.
    if (i > 0 && isStruck((cells[struckAt] ?? '').trim())) continue
    const row = read(cells, i + 1)
    if (typeof row === 'string') refuse(i + 1, row)
    else if (row) found.push(row)
  }
  return found
}
