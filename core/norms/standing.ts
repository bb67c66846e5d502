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

/** Tables made on one level of the waist, and the same measured at another. */
const LEVELS: Partial<Record<NormOf, NormOf>> = {
  waist: 'waist-mid',
  'waist-mid': 'waist',
  'waist-to-hip': 'waist-mid-to-hip',
  'waist-mid-to-hip': 'waist-to-hip',
}
const LEVEL_NAMES: Partial<Record<NormOf, string>> = {
  waist: 'the narrowest waist',
  'waist-mid': 'the waist half way between rib and hip crest',
  'waist-to-hip': 'the narrowest waist',
  'waist-mid-to-hip': 'the waist half way between rib and hip crest',
}

/** A table that says nothing because the waist was taken at another level than it was made on. */
function otherLevel(table: NormTable, values: Readonly<Partial<Record<NormOf, number>>>): Standing[] {
  const taken = LEVELS[table.of]
  const value = taken && values[taken]
  if (value === undefined) return []
  return [{ table, value, band: null, note: `Made on ${LEVEL_NAMES[table.of]}; another level was taken.` }]
}

/**
 * Where a person stands in each table whose value is known, or was taken at another level: in none under 18 and in pregnancy. Athletes get no percent
 * table, and the sentence why.
 */
export function standings(
  values: Readonly<Partial<Record<NormOf, number>>>,
  person: { sex: Sex; ageYears: number; athlete?: boolean; pregnant?: boolean },
): Standing[] {
  if (noTableBecause(person) !== null) return []
  return NORM_TABLES.flatMap((table): Standing[] => {
    const value = values[table.of]
    if (value === undefined) return otherLevel(table, values)
    if (table.of === 'percent' && person.athlete) return [{ table, value, band: null, note: ATHLETES_HAVE_NO_TABLE }]
    return [{ table, value, band: bandOf(table, value, person.sex, person.ageYears), note: table.note ?? null }]
  })
}
