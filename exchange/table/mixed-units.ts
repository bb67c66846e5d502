import { formatNumber, massToKg } from '../../core/units'
import { sameName, type IncomingRow, type Tell } from '../incoming'
import type { ColumnMeaning } from './headings'

/** Pounds in a kilogram, and how far from it two weights of one body may still stand apart by it. */
const LB_PER_KG = 2.2046
const NEAR = 1.15
/** Days within which nobody's weight doubles, children included. */
const WITHIN_DAYS = 400
const DAY_MS = 86_400_000

function isFactor(from: number, to: number): boolean {
  const ratio = Math.max(from, to) / Math.min(from, to)
  return ratio > LB_PER_KG / NEAR && ratio < LB_PER_KG * NEAR
}

/**
 * Watches a table for a column of weights that mixes kilograms with pounds: somebody's weight that is another by just that
 * factor within a year or so. Told at the cell; a unit written beside the number settles it. Girths need no watch: inches
 * taken for centimetres are outside of what a girth can be.
 */
export class UnitWatch {
  private readonly last = new Map<string, { kg: number; day: string }>()
  constructor(
    private readonly columns: readonly ColumnMeaning[],
    private readonly tell: Tell,
  ) {}

  /** Whether a row's weight goes on from the same person's before; one that does not is told. */
  fits({ line, client, day, readings }: IncomingRow): boolean {
    const weight = readings.find(({ site }) => site === 'weight')
    if (!weight) return true
    const name = sameName(client.name)
    const before = this.last.get(name)
    const kg = weight.unit === 'lb' ? massToKg(weight.value, 'lb') : weight.value
    const days = before ? Math.abs(Date.parse(day) - Date.parse(before.day)) / DAY_MS : Infinity
    if (!before || days > WITHIN_DAYS || !isFactor(before.kg, kg)) {
      this.last.set(name, { kg, day })
      return true
    }
    const column = this.columns.findIndex(({ means }) => means === 'weight')
    const [now, then] = [formatNumber(kg, 1), formatNumber(before.kg, 1)]
    this.tell({
      line,
      column: column < 0 ? null : column,
      message: `${now} kg here and ${then} kg before: does this column mix kilograms and pounds? Write the unit beside the number, such as “160 lb”.`,
    })
    return false
  }
}
