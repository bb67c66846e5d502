/** A date as a spreadsheet keeps it: a day, and the minute of it where there is one. */
export interface DateCell {
  day: string
  minute: number | null
}

/** What a cell of a table holds. Formulas come as what they last gave; they are never worked out. */
export type Cell = string | number | DateCell | null

/** A row of a table. */
export interface TableRow {
  /** Its number in the file, from 1. */
  line: number
  cells: Cell[]
}

/** A file that cannot be read as a table, with a sentence. */
export class TableRefused extends Error {}

/** Most columns and longest cell of any table of ours. */
export const LIMITS = { columns: 400, cell: 2_000, rows: 1_000_000 } as const

/** A cell as words. */
export function textOf(cell: Cell | undefined): string {
  if (cell === null || cell === undefined) return ''
  if (typeof cell === 'string') return cell.trim()
  return typeof cell === 'number' ? String(cell) : cell.day
}

/** Name of a column as spreadsheets have it: A, B, ... Z, AA. */
export function columnLetters(index: number): string {
  const rest = Math.floor(index / 26)
  return (rest > 0 ? columnLetters(rest - 1) : '') + String.fromCharCode(65 + (index % 26))
}
