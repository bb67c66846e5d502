import type { SlashOrder } from '../../core/calendar'
import type { CellProblem, IncomingRow, Tell } from '../incoming'
import { TableRefused, textOf, type Cell, type TableRow } from './cells'
import { recognise, type ColumnMeaning, type Remembered } from './headings'
import { readCsv } from './read-csv'
import { openWorkbook } from './read-xlsx'
import { UnitWatch } from './mixed-units'
import { orderOfDates, readVisit, SIDEWAYS, turned, type TablePlan } from './visits'

/** How check-ins stand in a table: one a row, or one a column. */
export type Layout = 'rows' | 'columns'

/** Which rows of which file. */
export interface TableFile {
  path: string
  kind: 'csv' | 'xlsx'
  /** Null: the first. */
  sheet: string | null
  layout: Layout
}

async function* upright({ path, kind, sheet }: TableFile): AsyncGenerator<TableRow> {
  if (kind === 'csv') return yield* readCsv(path)
  const workbook = await openWorkbook(path)
  try {
    const name = sheet ?? workbook.sheets[0] ?? ''
    if (!workbook.sheets.includes(name)) throw new TableRefused('There is no such sheet in this workbook.')
    yield* workbook.rows(name)
  } finally {
    workbook.close()
  }
}

/** Rows of a table, turned so that a check-in is always a row. */
export async function* tableRows(file: TableFile): AsyncGenerator<TableRow> {
  if (file.layout === 'rows') return yield* upright(file)
  const rows: TableRow[] = []
  for await (const row of upright(file)) {
    if (row.line > SIDEWAYS.lines)
      throw new TableRefused(`A log with a check-in a column has at most ${SIDEWAYS.lines} lines.`)
    while (rows.length < row.line - 1) rows.push({ line: rows.length + 1, cells: [] })
    rows.push(row)
  }
  yield* turned(rows)
}

/** What a table looks like, as far as it tells itself. */
export interface TableShape {
  layout: Layout
  headingLine: number
  headings: string[]
  /** The first rows after the headings, as words. */
  samples: string[][]
  columns: ColumnMeaning[]
  dateOrder: SlashOrder | null
  /** The dates can be read both ways: somebody has to say. */
  asksOrder: boolean
  /** Rows after the headings. */
  rows: number
}

const LOOKED_AT = 40
const SAMPLES = 8

function meanings(row: TableRow | undefined, remembered: Remembered): number {
  if (!row) return 0
  const known = recognise(row.cells.map(textOf), [], remembered)
  return known.filter(({ means }) => means !== null && means !== 'left-out').length
}

/** The row that names the most things that are known: where the headings stand. */
function headingOf(rows: readonly TableRow[], remembered: Remembered): { row: TableRow | undefined; known: number } {
  let best: { row: TableRow | undefined; known: number } = { row: rows[0], known: -1 }
  for (const row of rows.slice(0, 15)) {
    const known = meanings(row, remembered)
    if (known > best.known) best = { row, known }
  }
  return best
}

async function firstRows(file: TableFile): Promise<TableRow[]> {
  const rows: TableRow[] = []
  for await (const row of tableRows(file)) {
    rows.push(row)
    if (rows.length >= LOOKED_AT) break
  }
  return rows
}

/** Whether check-ins stand in columns: the names of sites run down, not across. */
async function layoutOf(file: Omit<TableFile, 'layout'>, remembered: Remembered): Promise<Layout> {
  const across = headingOf(await firstRows({ ...file, layout: 'rows' }), remembered).known
  if (across >= 3) return 'rows'
  const down = await firstRows({ ...file, layout: 'columns' }).then(
    (rows) => headingOf(rows.slice(0, 3), remembered).known,
    () => 0,
  )
  return down > across && down >= 2 ? 'columns' : 'rows'
}

/** Cells of a column, from all rows after the headings. */
async function* column(file: TableFile, headingLine: number, place: number): AsyncGenerator<Cell> {
  for await (const { line, cells } of tableRows(file)) if (line > headingLine) yield cells[place] ?? null
}

/**
 * Looks a table through: where its headings are, what its columns hold, how its dates are written.
 * @param wanted what somebody has said already; the rest is found
 */
export async function shapeOf(
  file: Omit<TableFile, 'layout'>,
  remembered: Remembered,
  wanted: Partial<Pick<TableShape, 'layout' | 'headingLine' | 'columns' | 'dateOrder'>> = {},
): Promise<TableShape> {
  const layout = wanted.layout ?? (await layoutOf(file, remembered))
  const whole = { ...file, layout }
  const first = await firstRows(whole)
  if (first.length === 0) throw new TableRefused('This table is empty.')
  const heading = first.find(({ line }) => line === wanted.headingLine) ?? headingOf(first, remembered).row
  const headingLine = heading?.line ?? 1
  const after = first.filter(({ line }) => line > headingLine)
  const width = Math.max(...first.map(({ cells }) => cells.length))
  const places = Array.from({ length: width }, (_, i) => i)
  const headings = places.map((i) => textOf(heading?.cells[i]).slice(0, 120))
  const found = recognise(
    headings,
    places.map((i) => after.map(({ cells }) => cells[i] ?? null)),
    remembered,
  )
  const columns = wanted.columns?.length === width ? wanted.columns : found
  let rows = 0
  const dates: Cell[] = []
  const at = columns.findIndex(({ means }) => means === 'date')
  for await (const cell of column(whole, headingLine, Math.max(0, at))) {
    rows += 1
    // Cells that are dates already tell nothing of slashes; of text some tens of thousands are enough.
    if (at >= 0 && typeof cell === 'string' && dates.length < 50_000) dates.push(cell)
  }
  const told = orderOfDates(dates)
  return {
    layout,
    headingLine,
    headings,
    samples: after.slice(0, SAMPLES).map(({ cells }) => places.map((i) => textOf(cells[i]).slice(0, 60))),
    columns,
    dateOrder: wanted.dateOrder ?? told.order,
    asksOrder: told.asks,
    rows,
  }
}

/** What has to be said before a table can be read, by column. */
export function openQuestions(
  { columns, headings, headingLine, dateOrder, asksOrder }: TableShape,
  ofOne: boolean,
): CellProblem[] {
  const ask = (column: number | null, message: string): CellProblem => ({ line: headingLine, column, message })
  const has = (...means: string[]) => columns.some((column) => means.includes(column.means ?? ''))
  const named = (i: number) => headings[i] || 'This column'
  return [
    ...(has('date') ? [] : [ask(null, 'Which column holds the date of the check-in?')]),
    ...(ofOne || has('client', 'first-name', 'last-name')
      ? []
      : [ask(null, 'Which column holds the name? Or say whose log this is.')]),
    ...columns.flatMap(({ means, unit }, i) => {
      if (means === null) return [ask(i, `${named(i)}: say what it holds, or leave it out.`)]
      const isMeasure = ![
        'left-out',
        'client',
        'first-name',
        'last-name',
        'sex',
        'birth-date',
        'date',
        'time',
        'assessor',
        'note',
      ].includes(means)
      return isMeasure && unit === null ? [ask(i, `${named(i)}: in which unit are its numbers?`)] : []
    }),
    ...(asksOrder && dateOrder === null
      ? [
          ask(
            columns.findIndex(({ means }) => means === 'date'),
            'Is 3/4 the third of April or the fourth of March? These dates can be read both ways.',
          ),
        ]
      : []),
  ]
}

/** Check-ins and weights of a table, row by row. */
export async function* incomingTable(file: TableFile, plan: TablePlan, tell: Tell): AsyncGenerator<IncomingRow> {
  const units = new UnitWatch(plan.columns, tell)
  for await (const row of tableRows(file)) {
    const visit = readVisit(plan, row, tell)
    if (visit && units.fits(visit)) yield visit
  }
}
