import { dayExists } from '../core/calendar'
import type { CheckinFacts } from '../core/composition/facts'
import type { Sex } from '../core/equations'
import { findProtocol, protocolFor, type Protocol } from '../core/protocols'
import type { MeasureId, Reading } from '../core/readings'
import { rangeOf, unitOf } from '../core/readings/slips/words'
import { asSite, WAY_IDS, type WayId } from '../core/sites'
import { lengthToCm, massToKg } from '../core/units'
import { columnNames, HeaderProblem, numberOf, SEXES } from './rows'

const NEEDED = ['client', 'sex', 'birth_date', 'height_cm', 'at', 'set', 'assessor', 'site', 'value'] as const
const MORE = ['unit', 'struck', 'method'] as const
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
  method: WayId | null
}

type Refuse = (line: number, reason: string) => void

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

/** A row as a reading, or why it is none; null: struck. */
function readRow(columns: Record<Name, number>, cells: readonly string[], line: number): ReadingRow | string | null {
  const cell = (name: Name) => (cells[columns[name]] ?? '').trim()
  if (/^(1|true|yes|x|struck)$/i.test(cell('struck'))) return null
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
  const site = name === 'weight' || name === 'height' ? name : asSite(name)
  if (!site) return `unknown site: ${short(name)}`
  if (site !== 'weight' && site !== 'height' && !protocol.sites.includes(site))
    return `${site} is not in the set ${protocol.id}`
  const number = numberOf(cell('value'))
  if (number === null || !Number.isFinite(number)) return `value is not a number: ${short(cell('value'))}`
  const unit = unitOf(site)
  const convert = UNITS[unit][cell('unit').toLowerCase() || unit]
  if (!convert) return `unknown unit for ${site}: ${short(cell('unit'))}`
  const value = convert(number)
  const { low, high } = rangeOf(site)
  if (!(value >= low && value <= high)) return `${site} is not between ${low} and ${high} ${unit}: ${number}`
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
    method: way,
  }
}

/**
 * Readings of a CSV, in its order; rows that cannot be read are refused by their line.
 * @throws HeaderProblem when the header does not name what is needed
 */
export function readingRows(rows: readonly string[][], refuse: Refuse): ReadingRow[] {
  let columns: Record<Name, number> | null = null
  const found: ReadingRow[] = []
  let line = 0
  for (const cells of rows) {
    line += 1
    if (!columns) columns = columnsOf(cells)
    else if (cells.length > 1 || cells[0]?.trim()) {
      const row = readRow(columns, cells, line)
      if (typeof row === 'string') refuse(line, row)
      else if (row) found.push(row)
    }
  }
  if (!columns || rows.length === 0) throw new HeaderProblem('The input is empty: a header row is needed.')
  return found
}

/** A client of the table with their check-ins, oldest first. */
export interface FollowedClient {
  id: string
  checkins: { at: string; facts: CheckinFacts }[]
}

function readingOf({ site, value, method }: ReadingRow, start: number, place: number): Reading {
  return {
    id: String(place).padStart(12, '0'),
    site,
    round: 1,
    value,
    unit: unitOf(site),
    takenAt: new Date(start + place * 1000).toISOString(),
    source: 'import',
    method,
  }
}

function checkinOf(rows: readonly ReadingRow[]): FollowedClient['checkins'][number] | null {
  const [first] = rows
  if (!first) return null
  const { sex, birthDate, heightCm, at, time, protocol, assessor } = first
  return {
    at,
    facts: {
      person: { sex, birthDate, heightCm },
      protocol: protocolFor(protocol, sex, new Set(rows.map(({ site }) => site))),
      startedAt: new Date(time).toISOString(),
      day: at.slice(0, 10),
      readings: rows.map((row, i) => readingOf(row, time, i)),
      strikes: [],
      ...(assessor ? { assessorId: assessor } : {}),
    },
  }
}

/** Rows put together: a check-in is one client and instant. What contradicts the rows before it is refused by its line. */
export function clientsOf(rows: readonly ReadingRow[], refuse: Refuse): FollowedClient[] {
  const clients = new Map<string, { first: ReadingRow; visits: Map<number, ReadingRow[]> }>()
  for (const row of rows) {
    const own = clients.get(row.client) ?? { first: row, visits: new Map<number, ReadingRow[]>() }
    clients.set(row.client, own)
    if (row.sex !== own.first.sex || row.birthDate !== own.first.birthDate) {
      refuse(row.line, `sex or birth_date differs from line ${own.first.line}`)
      continue
    }
    const visit = own.visits.get(row.time) ?? []
    own.visits.set(row.time, visit)
    if (visit[0] && (visit[0].protocol !== row.protocol || visit[0].assessor !== row.assessor))
      refuse(row.line, `set or assessor differs from line ${visit[0].line} of the same check-in`)
    else visit.push(row)
  }
  return [...clients].map(([id, { visits }]) => ({
    id,
    checkins: [...visits].sort(([a], [b]) => a - b).flatMap(([, own]) => checkinOf(own) ?? []),
  }))
}
