import { changeRow, numberShown, type Change, type Span } from '../../core/following'
import { SITES } from '../../core/sites'
import type { Units } from '../../core/units'
import { dayCell, type CellValue, type SheetFacts } from '../../exchange/workbook'
import { spanOfRecord, type FollowedRecord } from '../../shared/followed-record'
import type { ExportedRecord } from './records'

/** Files are in SI units, whoever takes them out. */
const UNITS: Units = { mass: 'kg', length: 'cm' }
const LIMBS = { arm: 'Arm, fold taken off', thigh: 'Thigh, fold taken off', calf: 'Calf, fold taken off' } as const

/** Every figure and site of a span by name. */
function namedChanges(span: Span): [name: string, change: Change][] {
  const figures: [string, Change | null][] = [
    ['Fat', span.fat],
    ['Sum of folds', span.sum],
    ['Lean', span.lean],
    ['Weight', span.weight],
    ['Weight, mean of the week', span.week],
    ['Fat, percent', span.percent],
    ...[...span.folds, ...span.girths].map(({ site, change }): [string, Change] => [SITES[site].name, change]),
    ...span.corrected.map(({ limb, change }): [string, Change] => [LIMBS[limb], change]),
  ]
  return figures.flatMap(([name, change]) => (change ? [[name, change]] : []))
}

function* rowsOf(client: string, record: FollowedRecord): Generator<readonly CellValue[]> {
  const { then, now, span } = spanOfRecord(record)
  if (!then || !now || !span) return
  for (const [name, change] of namedChanges(span)) {
    const row = changeRow(change, UNITS)
    const numbers = [row.then, row.now, row.difference].map(numberShown)
    yield [client, name, dayCell(then.record.day), dayCell(now.record.day), ...numbers, row.unit, row.sign, row.reason]
  }
}

/** What changed since each client's chosen start, by the row every screen shows. */
export function changesSheet(records: () => AsyncIterable<ExportedRecord>): SheetFacts {
  async function* rows() {
    for await (const { history, record } of records()) yield* rowsOf(history.client.name, record)
  }
  return {
    name: 'Changes',
    columns: [
      { heading: 'Client', width: 24 },
      { heading: 'Figure', width: 24 },
      { heading: 'From', format: 'day', width: 12 },
      { heading: 'To', format: 'day', width: 12 },
      { heading: 'Then', format: 'one' },
      { heading: 'Now', format: 'one' },
      { heading: 'Difference', format: 'one' },
      { heading: 'Unit' },
      { heading: 'Sign of change', width: 24 },
      { heading: 'Why', width: 48 },
    ],
    rows: rows(),
  }
}
