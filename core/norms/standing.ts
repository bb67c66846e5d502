import { ADULT_YEARS } from '../cautions'
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

/** Why norm tables say nothing about a person; null where they count: they were made on adults who are not pregnant. */
export function noTableBecause({ ageYears, pregnant }: { ageYears: number; pregnant?: boolean }): string | null {
  if (ageYears < ADULT_YEARS) {
    return 'Tables of norms count for adults only: children are judged by percentiles, elsewhere and by others.'
  }
  return pregnant ? 'In pregnancy no table of norms counts.' : null
}

/**
 * Where a person stands in each table whose value is known: in none under 18 and in pregnancy. Athletes get no percent
 * table, and the sentence why.
 */
export function standings(
  values: Readonly<Partial<Record<NormOf, number>>>,
  person: { sex: Sex; ageYears: number; athlete?: boolean; pregnant?: boolean },
): Standing[] {
  if (noTableBecause(person) !== null) return []
  return NORM_TABLES.flatMap((table): Standing[] => {
    const value = values[table.of]
    if (value === undefined) return []
    if (table.of === 'percent' && person.athlete) return [{ table, value, band: null, note: ATHLETES_HAVE_NO_TABLE }]
    return [{ table, value, band: bandOf(table, value, person.sex, person.ageYears), note: table.note ?? null }]
  })
}
