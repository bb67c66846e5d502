import { sql, type AnyColumn, type SQL } from 'drizzle-orm'
import { READING_LIMITS } from '../../../shared/limits'

/** A value within the limits of its unit, from the same table the schemas use. */
export function withinLimits(unit: AnyColumn, value: AnyColumn, units: readonly (keyof typeof READING_LIMITS)[]): SQL {
  const cases = units.map((one) => {
    const { factor, low, high } = READING_LIMITS[one]
    return sql`when ${sql.raw(`'${one}'`)} then ${value} * ${sql.raw(String(factor))}::float8 between ${sql.raw(String(low))} and ${sql.raw(String(high))}`
  })
  return sql`case ${unit} ${sql.join(cases, sql` `)} else false end`
}

/** One of a list of ids, or nothing. */
export function oneOf(column: AnyColumn, ids: readonly string[]): SQL {
  return sql`${column} in (${sql.raw(ids.map((id) => `'${id}'`).join(', '))})`
}
