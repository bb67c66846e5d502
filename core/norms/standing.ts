import type { Sex } from '../equations/equation'
import { ATHLETES_HAVE_NO_TABLE, NORM_TABLES, type NormBand, type NormOf, type NormTable } from './tables'

/** Where a person stands in one table. */
export interface Standing {
  table: NormTable
  value: number
  /** Null: the table says nothing about this person. */
  band: NormBand | null
  note: string | null
}

/** The band a value falls in: low ends included. */
export function bandOf(table: NormTable, value: number, sex: Sex, ageYears: number): NormBand | null {
  return table.bands(sex, ageYears).find(({ low, high }) => value >= low && value < high) ?? null
}

/** Where a person stands in each table whose value is known. Athletes get no percent table, and the sentence why. */
export function standings(
  values: Readonly<Partial<Record<NormOf, number>>>,
  person: { sex: Sex; ageYears: number; athlete?: boolean },
): Standing[] {
  return NORM_TABLES.flatMap((table): Standing[] => {
    const value = values[table.of]
    if (value === undefined) return []
    if (table.of === 'percent' && person.athlete) return [{ table, value, band: null, note: ATHLETES_HAVE_NO_TABLE }]
    return [{ table, value, band: bandOf(table, value, person.sex, person.ageYears), note: table.note ?? null }]
  })
}
