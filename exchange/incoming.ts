import type { SiteId, WayId } from '../core/sites'
import type { Sex } from '../core/equations'

/** Somebody as a file names them. */
export interface IncomingClient {
  name: string
  /** Null: the file does not say; enough for somebody who is here already. */
  sex: Sex | null
  birthDate: string | null
  heightCm: number | null
}

/** One value of a check-in as a file gives it. */
export interface IncomingReading {
  site: SiteId | 'weight' | 'height'
  round: number
  value: number
  unit: 'mm' | 'cm' | 'in' | 'kg' | 'lb'
  struck: boolean
  method: WayId | null
  note: string
}

/** A part of a check-in, or a day's weight: what one row of a file says. */
export interface IncomingRow {
  line: number
  client: IncomingClient
  /** ISO 8601 instant. */
  at: string
  day: string
  /** Null: a weight of the diary and no check-in. */
  protocolId: string | null
  assessor: string
  side: 'right' | 'left'
  note: string
  readings: IncomingReading[]
}

/** What is wrong, where. */
export interface CellProblem {
  line: number
  /** Place of the column, from 0; null: the row as a whole. */
  column: number | null
  message: string
}

export type Tell = (problem: CellProblem) => void

/** Names as they are held against each other: case, accents and spaces do not part two people. */
export function sameName(name: string): string {
  return name.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ').trim()
}
