import { BOUNDS } from '../../core/units/bounds'
import {
  addDays,
  dayOfWritten,
  instantAt,
  toldOrder,
  writtenDate,
  type SlashOrder,
  type WrittenDate,
} from '../../core/calendar'
import type { Sex } from '../../core/equations'
import { SITES, type SiteId } from '../../core/sites'
import { lengthToCm } from '../../core/units'
import type { IncomingClient, IncomingReading, IncomingRow, Tell } from '../incoming'
import { textOf, type Cell, type TableRow } from './cells'
import type { ColumnMeaning, Means } from './headings'
import type { FactId } from './spellings'
import { readValue } from './values'

/** How a table is to be read. */
export interface TablePlan {
  columns: readonly ColumnMeaning[]
  /** Line of the headings; rows after it are read. */
  headingLine: number
  dateOrder: SlashOrder | null
  /** Everything is this one client's; null: a column says whose. */
  client: IncomingClient | null
  protocolId: string
  timeZone: string
  /** Today, where the studio is: nothing was measured after it. */
  today: string
}

const SEX_WORDS: Readonly<Record<string, Sex>> = {
  f: 'female',
  female: 'female',
  w: 'female',
  woman: 'female',
  women: 'female',
  girl: 'female',
  lady: 'female',
  m: 'male',
  male: 'male',
  man: 'male',
  men: 'male',
  boy: 'male',
}

const NOON = 12 * 60
const TIME = /^(\d{1,2})[:.h](\d{2})(?::\d{2})?\s*(am|pm)?$/i

/** Minutes of the day as written; null: none. */
function minuteOf(text: string): number | null {
  const [, hours, minutes, half] = TIME.exec(text.trim()) ?? []
  if (!hours) return null
  const hour = (Number(hours) % (half ? 12 : 24)) + (half?.toLowerCase() === 'pm' ? 12 : 0)
  return Number(minutes) < 60 ? hour * 60 + Number(minutes) : null
}

/** The order slashes of a column are written in, told by the whole of it; null: it does not tell. */
export function orderOfDates(cells: Iterable<Cell>): { order: SlashOrder | null; asks: boolean } {
  const written: WrittenDate[] = []
  for (const cell of cells) {
    const found = typeof cell === 'string' ? writtenDate(cell.trim()) : null
    if (found?.slashed) written.push(found)
  }
  const order = toldOrder(written)
  return { order, asks: written.length > 0 && order === null && written.some(({ parts }) => parts[1] !== parts[2]) }
}

function dayOf(cell: Cell | undefined, order: SlashOrder | null): string | null {
  if (typeof cell === 'object' && cell !== null) return cell.day
  const written = writtenDate(textOf(cell))
  return written ? dayOfWritten(written, order) : null
}

/** Instants worked out for a table: its rows share their days, and a zone's clocks take long to ask. */
const worked = new WeakMap<TablePlan, Map<string, string>>()

function instantIn(plan: TablePlan, day: string, minute: number): string {
  const known = worked.get(plan) ?? new Map<string, string>()
  worked.set(plan, known)
  const key = `${day} ${minute}`
  const found = known.get(key) ?? instantAt(day, minute, plan.timeZone)
  known.set(key, found)
  return found
}

/** One row's cells by what they mean, with somebody to tell of what is wrong. */
class RowReader {
  constructor(
    private readonly plan: TablePlan,
    private readonly row: TableRow,
    private readonly tell: Tell,
  ) {}

  private place(means: Means): number {
    return this.plan.columns.findIndex((column) => column.means === means)
  }
  cell(means: FactId): Cell | undefined {
    const at = this.place(means)
    return at < 0 ? undefined : this.row.cells[at]
  }
  text(means: FactId): string {
    return textOf(this.cell(means)).slice(0, 2_000)
  }
  wrong(means: FactId | null, message: string): null {
    const at = means ? this.place(means) : -1
    this.tell({ line: this.row.line, column: at < 0 ? null : at, message })
    return null
  }

  day(means: 'date' | 'birth-date'): string | null {
    const cell = this.cell(means)
    if (textOf(cell) === '') return null
    const found = dayOf(cell, this.plan.dateOrder)
    if (!found) return this.wrong(means, `“${textOf(cell).slice(0, 40)}” is no date that exists.`)
    if (found > this.plan.today) return this.wrong(means, `${found} is still to come.`)
    if (found < (means === 'birth-date' ? BOUNDS.firstBirthDay : BOUNDS.firstFactDay))
      return this.wrong(means, `${found} is too long ago.`)
    return found
  }

  client(): IncomingClient | null {
    const name = this.text('client') || `${this.text('first-name')} ${this.text('last-name')}`.trim()
    const one = this.plan.client
    if (one) return one
    if (!name) return this.wrong('client', 'Whose check-in is this? The name is missing.')
    if (name.length > 120) return this.wrong('client', 'A name has at most 120 characters.')
    const word = this.text('sex').toLowerCase()
    const sex = SEX_WORDS[word] ?? null
    if (word && !sex) return this.wrong('sex', `“${word.slice(0, 40)}” is not understood: write female or male.`)
    const birth = this.day('birth-date')
    if (!birth && this.text('birth-date')) return null
    const height = this.measures().find(({ site }) => site === 'height')
    const heightCm = height ? (height.unit === 'in' ? lengthToCm(height.value, 'in') : height.value) : null
    return { name: name.replace(/\s+/g, ' '), sex, birthDate: birth, heightCm }
  }

  private found: IncomingReading[] | null = null
  /** Every value of the row. */
  measures(): IncomingReading[] {
    if (this.found) return this.found
    this.found = []
    for (const [at, { means, unit, trial }] of this.plan.columns.entries()) {
      if (!means || !(means in SITES || means === 'weight' || means === 'height')) continue
      const site = means as SiteId | 'weight' | 'height'
      const read = readValue(site, this.row.cells[at], unit ?? 'cm')
      if (!read) continue
      if ('wrong' in read) this.tell({ line: this.row.line, column: at, message: read.wrong })
      else this.found.push({ site, round: trial, ...read, struck: false, method: null, note: '' })
    }
    return this.found
  }

  at(day: string): string | null {
    const cell = this.cell('date')
    const own = typeof cell === 'object' && cell !== null ? cell.minute : null
    const text = this.text('time')
    const time = this.cell('time')
    // A spreadsheet's time of day is a part of a day.
    const minute =
      typeof time === 'number' && time >= 0 && time < 1 ? Math.round(time * 1440) % 1440 : text ? minuteOf(text) : own
    if (text && minute === null) return this.wrong('time', `“${text.slice(0, 20)}” is no time of day.`)
    return instantIn(this.plan, day, minute ?? NOON)
  }
}

/**
 * What a row of a table says: a check-in, or a day's weight where it holds no site. Null for a row without any value, or
 * one something is wrong with, which is told cell by cell.
 */
export function readVisit(plan: TablePlan, row: TableRow, tell: Tell): IncomingRow | null {
  if (row.line <= plan.headingLine) return null
  let problems = 0
  const reader = new RowReader(plan, row, (problem) => {
    problems += 1
    tell(problem)
  })
  const all = reader.measures()
  if (all.length === 0 && problems === 0) return null
  const client = reader.client()
  const day = reader.day('date')
  if (!day && !reader.text('date')) reader.wrong('date', 'The date is missing.')
  const at = day ? reader.at(day) : null
  const sites = all.filter(({ site }) => site !== 'weight' && site !== 'height')
  if (!client || !day || !at || problems > 0) return null
  if (client.birthDate && day <= addDays(client.birthDate, 365 * 5)) {
    reader.wrong('date', 'This is before the client’s sixth birthday: is the birth date right?')
    return null
  }
  const isVisit = sites.length > 0
  return {
    line: row.line,
    client,
    at,
    day,
    protocolId: isVisit ? plan.protocolId : null,
    assessor: reader.text('assessor').slice(0, 120),
    side: 'right',
    note: reader.text('note').slice(0, 2_000),
    readings: isVisit ? all : all.filter(({ site }) => site === 'weight'),
  }
}

/** Most lines and columns of a table that is turned on its side: one person's log. */
export const SIDEWAYS = { lines: 400, columns: 400 } as const

/** A table whose check-ins stand in columns, turned so that they stand in rows. */
export function turned(rows: readonly TableRow[]): TableRow[] {
  const width = Math.max(0, ...rows.map(({ cells }) => cells.length))
  return Array.from({ length: width }, (_, i) => ({ line: i + 1, cells: rows.map(({ cells }) => cells[i] ?? null) }))
}
